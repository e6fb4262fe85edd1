import type { HoseSpan, LaidHose, PlacedHose, Unit } from "../../api/types";
import { sayLength } from "../../format/units";
import { Clock } from "../../ui/Clock";
import { TUBE_H, TUBE_Y } from "./along";
import type { Segment } from "./layout";

interface Props {
  segment: Segment;
  span: HoseSpan;
  placed: PlacedHose | undefined;
  laid: LaidHose | undefined;
  unit: Unit;
}

const TOP = TUBE_Y - 2;
const TALL = TUBE_H + 4;
const MIDDLE = TUBE_Y + TUBE_H / 2;
/** The least, in pixels, at which an end can be told from the hose, and the most of a hose that ends may take. */
const LEAST_END = 20;
const MOST_ENDS = 0.3;
/** From which width on there is room to write over both ends. */
const WRITTEN = 240;
/** Half of what a place along the hose is shown as, in pixels. */
const NEAR = 26;

/** A hose to scale: dark, its braid seen; ends by their kind and angle, clamps, cuts, its tightest place, and
 * what it comes too near to. */
export function HoseMark({ segment, span, placed, laid, unit }: Props) {
  const { x, width } = segment;
  const scale = segment.mm ? width / segment.mm : 0;
  const own = span.joined !== "clamps";
  const least = Math.min(LEAST_END, width * MOST_ENDS);
  const room = (k: 0 | 1) =>
    own ? Math.min(width * MOST_ENDS, Math.max(least, (placed?.takes_mm[k] ?? 0) * scale)) : 0;
  const [from, to] = [x + room(0), x + width - room(1)];
  const lapA = placed?.laps[0]?.mm ?? 0;
  const at = (mm: number) => x + (lapA + mm) * scale;
  const braid = placed?.hose_class.cover === "braid";
  return (
    <>
      <defs>
        <pattern id="weave" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--hose)" />
          <path d="M0 0 L7 7 M7 0 L0 7" stroke="var(--weave)" strokeWidth="0.9" />
        </pattern>
      </defs>
      <rect
        data-hose-body
        x={from}
        y={TOP}
        width={Math.max(0, to - from)}
        height={TALL}
        rx={own ? 0 : 4}
        fill={braid ? "url(#weave)" : "var(--hose)"}
        stroke="var(--ink)"
        opacity={span.state === "stays" ? 0.6 : 1}
      />
      {own ? (
        <>
          <OwnEnd tip={x} hose={from} towards={-1} angle={span.angle_a} room={width > WRITTEN} />
          <OwnEnd tip={x + width} hose={to} towards={1} angle={span.angle_b} room={width > WRITTEN} />
          {span.angle_b !== 0 && span.angle_a !== 0 && laid?.clock_deg != null && (
            <Clock x={x + width + 14} y={TUBE_Y - 34} r={12} degrees={laid.clock_deg} />
          )}
          {placed?.cut_mm != null && <CutAt x={from} />}
          {placed?.cut_mm != null && <CutAt x={to} />}
        </>
      ) : (
        <>
          <Clamped edge={x} towards={1} lap={lapA * scale} each={span.clamps_each} most={width * 0.4} />
          <Clamped
            edge={x + width}
            towards={-1}
            lap={(placed?.laps[1]?.mm ?? 0) * scale}
            each={span.clamps_each}
            most={width * 0.4}
          />
        </>
      )}
      {laid?.nearest
        .filter((near) => near.distance_mm < near.wanted_mm)
        .map((near) => (
          <TooNear
            key={near.item}
            x={Math.min(to - NEAR, Math.max(from + NEAR, at(near.at_mm)))}
            said={`${near.distance_mm <= 0 ? "touches" : "near"} ${near.what || "what lies beside it"}`}
          />
        ))}
      {span.rubs && !laid?.nearest.some((near) => near.distance_mm <= 0) && (
        <TooNear x={(from + to) / 2} said={span.sleeved ? "sleeve: rubs" : "rubs"} />
      )}
      {laid?.radius_mm != null && scale > 0 && (
        <circle
          data-tightest
          cx={at(laid.tightest_at_mm)}
          cy={MIDDLE}
          r={6}
          fill="var(--sheet)"
          stroke={laid.radius_mm < laid.needs_mm ? "var(--stop)" : "var(--ink)"}
          strokeWidth={3}
        >
          <title>
            {`Tightest here: radius ${sayLength(laid.radius_mm, unit)}, ${sayLength(laid.needs_mm, unit)} at least`}
          </title>
        </circle>
      )}
    </>
  );
}

/** An end of the hose's own: its socket over the hose, then the nose with the seat, turned by its angle. */
function OwnEnd({
  tip,
  hose,
  towards,
  angle,
  room,
}: {
  tip: number;
  hose: number;
  towards: 1 | -1;
  angle: number;
  /** Its angle can be written over it. */
  room: boolean;
}) {
  const out = Math.abs(tip - hose);
  const socket = out * 0.55;
  const from = hose - towards * socket * 0.4;
  const neck = hose + towards * socket * 0.6;
  const turn = (Math.min(angle, 90) * Math.PI) / 180;
  const nose = Math.abs(tip - neck);
  // a nose that turns off is drawn as long as a straight one, up from where it turns
  const bend = angle === 0 ? tip : neck + towards * nose * 0.35;
  const end = {
    x: bend + towards * nose * 0.65 * Math.cos(turn),
    y: MIDDLE - Math.max(12, nose * 0.65) * Math.sin(turn),
  };
  const way = angle === 0 ? `M${neck} ${MIDDLE} H${tip}` : `M${neck} ${MIDDLE} H${bend} L${end.x} ${end.y}`;
  return (
    <g data-hose-end={angle}>
      <path d={way} fill="none" stroke="var(--ink)" strokeWidth={TUBE_H - 4} strokeLinejoin="round" />
      <path d={way} fill="none" stroke="var(--nut)" strokeWidth={TUBE_H - 7} strokeLinejoin="round" />
      <rect
        x={Math.min(from, neck)}
        y={TOP - 4}
        width={Math.abs(neck - from)}
        height={TALL + 8}
        fill="var(--nut)"
        stroke="var(--ink)"
      />
      {room && (
        <text x={(from + neck) / 2} y={TOP - 20} textAnchor="middle" fontSize="13" fontWeight={500} fill="var(--ink)">
          {angle === 0 ? "straight" : `${angle}°`}
        </text>
      )}
    </g>
  );
}

/** Where the hose is cut, under its edge. */
const CutAt = ({ x }: { x: number }) => (
  <line data-hose-cut x1={x} x2={x} y1={TOP + TALL + 6} y2={TOP + TALL + 14} stroke="var(--action)" strokeWidth={2.4} />
);

/** Clamps over what the hose is pushed on, its edge dashed inside. */
function Clamped({
  edge,
  towards,
  lap,
  each,
  most,
}: {
  edge: number;
  towards: 1 | -1;
  lap: number;
  each: number;
  most: number;
}) {
  const inside = Math.min(most, Math.max(14, lap));
  const band = Math.min(6, inside * 0.22);
  const places = each === 2 ? [0.16, 0.6] : each === 1 ? [0.35] : [];
  return (
    <>
      <path
        d={`M${edge} ${TUBE_Y + 3} h${towards * inside} v${TUBE_H - 6} h${-towards * inside}`}
        fill="none"
        stroke="var(--weave)"
        strokeDasharray="3 3"
      />
      {places.map((share) => {
        const near = edge + towards * inside * share;
        return (
          <rect
            key={share}
            data-clamp
            x={Math.min(near, near + towards * band)}
            y={TOP - 3}
            width={band}
            height={TALL + 6}
            fill="var(--sheet)"
            stroke="var(--ink)"
          />
        );
      })}
    </>
  );
}

/** A place where the hose rubs, or comes nearer to something than it may. */
const TooNear = ({ x, said }: { x: number; said: string }) => (
  <g data-near>
    <rect
      x={x - NEAR}
      y={TOP - 3}
      width={2 * NEAR}
      height={TALL + 6}
      fill="none"
      stroke="var(--caution)"
      strokeWidth={2}
      strokeDasharray="4 3"
    />
    <text
      x={x}
      y={TOP + TALL + 32}
      textAnchor="middle"
      fontSize="12.5"
      fill="var(--caution)"
      stroke="var(--sheet)"
      strokeWidth={3}
      paintOrder="stroke"
    >
      {said}
    </text>
  </g>
);
