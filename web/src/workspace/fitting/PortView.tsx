import type { Tweak, TypedOffer, Unit } from "../../api/types";
import { sayLength } from "../../format/units";
import { homeOf } from "./offers";

interface Props {
  /** Where the end that lands lies beside its port, as read. */
  offMm: number | null;
  offClock: number | null;
  tweaks: readonly Tweak[];
  unit: Unit;
  lands: TypedOffer["lands"];
}

const R = 74;
const FULL_MM = 10;

/** The port of the end that lands, seen along the line from the other end: where that end lies, and which way it
 * is to move. */
export function PortView({ offMm, offClock, tweaks, unit, lands }: Props) {
  const most = Math.max(FULL_MM, offMm ?? 0, ...tweaks.map((tweak) => tweak.end_moves_mm));
  const at = (mm: number, clock: number) => {
    const a = (clock * Math.PI) / 180;
    return { x: (Math.sin(a) * mm * R) / most, y: (-Math.cos(a) * mm * R) / most };
  };
  const dot = offMm !== null && offClock !== null ? at(offMm, offClock) : null;
  const from = dot ?? { x: 0, y: 0 };
  const hours = ["12", "3", "6", "9"];
  let tip = from;
  return (
    <svg
      width="210"
      height="210"
      viewBox="-105 -105 210 210"
      role="img"
      aria-label={`Port ${lands} seen from ${homeOf(lands)}`}
    >
      <circle r={R} fill="var(--sheet)" stroke="var(--second)" />
      <circle r={R / 2} fill="none" stroke="var(--rule)" />
      {hours.map((hour, k) => {
        const a = (k * Math.PI) / 2;
        return (
          <text
            key={hour}
            x={Math.sin(a) * (R + 16)}
            y={-Math.cos(a) * (R + 16) + 6}
            textAnchor="middle"
            fontSize="17"
            fill="var(--second)"
          >
            {hour}
          </text>
        );
      })}
      <path d="M-9 0H9M0 -9V9" stroke="var(--ink)" strokeWidth="2" />
      {dot && <circle cx={dot.x} cy={dot.y} r="7" fill="var(--tube)" stroke="var(--ink)" />}
      {tweaks.map((tweak) => {
        const by = at(tweak.end_moves_mm, tweak.towards_clock_deg);
        const start = tip;
        tip = { x: start.x + by.x, y: start.y + by.y };
        const turn = (Math.atan2(by.y, by.x) * 180) / Math.PI;
        return (
          <g key={`${tweak.act.kind} ${tweak.act.at}`} stroke="var(--action)" fill="var(--action)">
            <line x1={start.x} y1={start.y} x2={tip.x} y2={tip.y} strokeWidth="3" />
            <path d="M0 0L-11 -6V6Z" transform={`translate(${tip.x} ${tip.y}) rotate(${turn})`} />
          </g>
        );
      })}
      <text x="-102" y="100" fontSize="14" fill="var(--second)">
        edge {sayLength(most, unit)}
      </text>
    </svg>
  );
}
