import type { Chosen, Part, Unit } from "../../api/types";
import { rulerSteps, sayAngle, sayFigure } from "../../format/units";
import { Clock } from "../../ui/Clock";
import { lanes } from "./lanes";
import { spareOf } from "./spare";

/** The strip's height, and where the tube lies on it, in pixels. */
export const HEIGHT = 172;
export const TUBE_Y = 84;
export const TUBE_H = 20;

/** The place that governs what the line stands. */
export function Weakest({ chosen, x }: { chosen: Chosen; x: (span: string, mm: number) => number }) {
  const weakest = chosen.strength?.elements.find((element) => element.id === chosen.strength?.weakest);
  if (!weakest || weakest.where.from_mm == null || weakest.where.to_mm == null || chosen.carried?.duty.vacuum)
    return null;
  const span = weakest.where.span;
  const middle = (x(span, weakest.where.from_mm) + x(span, weakest.where.to_mm)) / 2;
  return (
    <path
      data-weakest={weakest.id}
      d={`M${middle - 6} ${TUBE_Y + TUBE_H} h12 l-6 -9 z`}
      fill="var(--paper)"
      stroke="var(--ink)"
      strokeWidth="1.2"
    >
      <title>{`Weakest here: ${weakest.name}`}</title>
    </path>
  );
}

/** A bend over the tube: its clock, number and angle. */
export function Head({
  x,
  lane,
  number,
  angle,
  clock,
  chosen,
}: {
  x: number;
  lane: number;
  number: number;
  angle: number;
  clock: number;
  chosen: boolean;
}) {
  if (lane < 0) {
    return (
      <text x={x} y={TUBE_Y - 5} textAnchor="middle" fontSize="13" fontWeight={600} fill="var(--ink)">
        {number}
      </text>
    );
  }
  const y = lane === 0 ? 58 : 24;
  return (
    <>
      {lane === 1 && <line x1={x} y1={y + 13} x2={x} y2={TUBE_Y} stroke="var(--rule)" />}
      <Clock x={x - 12} y={y} r={12.5} degrees={clock} chosen={chosen} />
      <text x={x + 6} y={y - 1} fontSize="17" fontWeight={600} fill="var(--ink)">
        {number}
      </text>
      <text x={x + 6} y={y + 13} fontSize="14" fontWeight={500} fill="var(--second)">
        {sayAngle(angle)}
      </text>
    </>
  );
}

/** The place of a finding, lit on the tube. */
export function Lit({ from, to, severity }: { from: number; to: number; severity: string }) {
  const width = Math.max(6, to - from);
  return (
    <g data-lit={severity}>
      <defs>
        <pattern id="lit" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="8" fill={`var(--${severity})`} />
        </pattern>
      </defs>
      <rect x={from} y={TUBE_Y + TUBE_H + 2} width={width} height={6} fill="url(#lit)" />
      <rect
        x={from - 2}
        y={TUBE_Y - 3}
        width={width + 4}
        height={TUBE_H + 6}
        fill="none"
        stroke={`var(--${severity})`}
        strokeWidth="2"
      />
    </g>
  );
}

/** What is cut off at the last, or taken up by the flare. */
export function Spare({
  part,
  x,
  unit,
  fromA,
  quiet,
}: {
  part: Part;
  x: (mm: number) => number;
  unit: Unit;
  fromA: boolean;
  /** Something else of the line lies beside it: no room for words. */
  quiet: boolean;
}) {
  const spare = spareOf(part, fromA, unit);
  if (!spare) return null;
  const end = fromA ? part.end_b : part.end_a;
  const [a, b] = [x(spare.from_mm), x(spare.to_mm)];
  return (
    <g>
      <rect
        x={a}
        y={TUBE_Y + 2}
        width={b - a}
        height={TUBE_H - 4}
        fill="none"
        stroke="var(--tube)"
        strokeDasharray="4 3"
        strokeWidth="1.5"
      />
      {!quiet && (
        <>
          <text
            x={fromA ? b + 5 : a - 5}
            y={TUBE_Y + 9}
            fontSize="13"
            fill="var(--second)"
            textAnchor={fromA ? "start" : "end"}
          >
            {spare.text}
          </text>
          {end.order !== "before" && (
            <text
              x={fromA ? b + 5 : a - 5}
              y={TUBE_Y + 23}
              fontSize="13"
              fill="var(--second)"
              textAnchor={fromA ? "start" : "end"}
            >
              trim last
            </text>
          )}
        </>
      )}
    </g>
  );
}

/** What the held end is left long by; the marks are measured from its tip. */
export function HeldLong({ part, x, fromA }: { part: Part; x: (mm: number) => number; fromA: boolean }) {
  const end = fromA ? part.end_a : part.end_b;
  if (end.leave_long_mm <= 0) return null;
  const room = end.allowance_mm + end.leave_long_mm;
  const a = fromA ? x(-room) : x(part.developed_mm);
  const b = fromA ? x(0) : x(part.developed_mm + room);
  return (
    <rect
      data-long={end.end}
      x={a}
      y={TUBE_Y + 2}
      width={b - a}
      height={TUBE_H - 4}
      fill="none"
      stroke="var(--tube)"
      strokeDasharray="4 3"
      strokeWidth="1.5"
    />
  );
}

/** The marks for the bender, under the tube. */
export function Marks({
  part,
  x,
  unit,
  chosen,
  choose,
}: {
  part: Part;
  x: (mm: number) => number;
  unit: Unit;
  chosen: number | null;
  choose: (bend: number) => void;
}) {
  const moves = part.moves
    .filter((move) => move.strip_mm != null)
    .sort((a, b) => (a.strip_mm ?? 0) - (b.strip_mm ?? 0));
  const rows = lanes(
    moves.map((move) => x(move.strip_mm ?? 0)),
    58,
    2,
  );
  return (
    <>
      {moves.map((move, k) => {
        const at = x(move.strip_mm ?? 0);
        const lane = rows[k] ?? -1;
        const y = TUBE_Y + TUBE_H + (lane === 1 ? 33 : 19);
        return (
          <g key={move.bend} data-mark={move.bend} onClick={() => choose(move.bend)} style={{ cursor: "pointer" }}>
            <line
              x1={at}
              y1={TUBE_Y - 3}
              x2={at}
              y2={lane === 1 ? y - 11 : TUBE_Y + TUBE_H + 6}
              stroke={chosen === move.bend ? "var(--action)" : "var(--ink)"}
              strokeWidth={chosen === move.bend ? 2.6 : 1.6}
            />
            {lane >= 0 && (
              <text x={at} y={y} textAnchor="middle" fontSize="15" fontWeight={600} fill="var(--ink)">
                {sayFigure(move.mark_mm ?? 0, unit)}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

/** The ruler of a tube starts where the marks are measured from: the held end, flared rim or cut end. */
export function TubeRuler({
  part,
  x,
  unit,
  fromA,
}: {
  part: Part;
  x: (mm: number) => number;
  unit: Unit;
  fromA: boolean;
}) {
  const held = fromA ? part.end_a : part.end_b;
  const lead = held.order === "before" ? 0 : held.allowance_mm + held.leave_long_mm;
  const total = part.developed_mm + lead;
  const place = (mm: number) => (fromA ? x(mm - lead) : x(part.developed_mm + lead - mm));
  return <Ruler from={place(0)} to={place(total)} total={total} unit={unit} />;
}

/** A ruler under a piece, between two places in pixels; it may run either way. */
export function Ruler({ from, to, total, unit }: { from: number; to: number; total: number; unit: Unit }) {
  const place = (mm: number) => from + ((to - from) * mm) / total;
  // a figure takes some 40 pixels: a short tube in a long line has fewer of them
  const figures = Math.max(1, Math.min(20, Math.abs(place(total) - place(0)) / 40));
  const { tick, label } = rulerSteps((total * 20) / figures, unit);
  const y = HEIGHT - 26;
  const ticks = Array.from({ length: Math.floor(total / tick + 1e-6) + 1 }, (_, k) => k * tick);
  return (
    <g aria-hidden>
      <line x1={place(0)} y1={y} x2={place(total)} y2={y} stroke="var(--second)" />
      {ticks.map((mm, k) => {
        const major = Math.abs(mm / label - Math.round(mm / label)) < 1e-6;
        return (
          <g key={k}>
            <line x1={place(mm)} y1={y} x2={place(mm)} y2={y + (major ? 7 : 4)} stroke="var(--second)" />
            {major && (
              <text x={place(mm)} y={y + 19} fontSize="13" textAnchor="middle" fill="var(--second)">
                {sayFigure(mm, unit)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Where the readings end and the tube goes on. */
export function GoesOn({ x }: { x: number }) {
  const middle = TUBE_Y + TUBE_H / 2;
  return (
    <g data-open>
      <line
        x1={x}
        x2={x + 30}
        y1={middle}
        y2={middle}
        stroke="var(--tube)"
        strokeWidth={TUBE_H}
        strokeDasharray="3 6"
        opacity={0.6}
      />
      <text x={x + 4} y={TUBE_Y - 8} fontSize="15" fill="var(--second)">
        goes on
      </text>
    </g>
  );
}
