import Box from "@mui/material/Box";
import { useLayoutEffect, useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import type { Chosen, Looked, Part, Unit } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { rulerSteps, sayAngle, sayClock, sayFigure, sayLength } from "../../format/units";
import { Clock } from "../../ui/Clock";
import { EndMark } from "./EndMark";
import { Found } from "./Found";
import { lanes } from "./lanes";
import { PIECE_W, Pieces } from "./Pieces";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const HEIGHT = 172;
const TUBE_Y = 84;
const TUBE_H = 20;
const SIDE = 76;

/** The tube unrolled to scale: bends with their clocks, marks, nuts, flares, spare, and findings. */
export function Strip({ editor, view }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1280);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(480, entry.contentRect.width)));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return (
    <Box
      ref={box}
      component="section"
      aria-label="The strip"
      sx={{
        height: HEIGHT,
        borderTop: "2px solid var(--ink)",
        background: "var(--sheet)",
        overflow: "hidden",
        position: "relative",
        "@media (max-width: 900px)": { position: "sticky", bottom: 0, zIndex: 3 },
      }}
    >
      {view.drawn ? (
        <Unrolled
          part={view.drawn}
          looked={view.growing ? null : (view.plan?.looked ?? null)}
          follows={view.growing ? null : (view.plan?.chosen ?? null)}
          unit={editor.document.unit}
          width={width}
          old={view.old && !view.growing}
          open={view.growing}
        />
      ) : (
        <Box sx={{ p: 3, color: "var(--second)" }}>
          The tube is laid out here, to scale, as soon as the readings give a line.
        </Box>
      )}
    </Box>
  );
}

function Unrolled({
  part,
  looked,
  follows,
  unit,
  width,
  old,
  open,
}: {
  part: Part;
  looked: Looked | null;
  follows: Chosen | null;
  unit: Unit;
  width: number;
  old: boolean;
  /** Not all of it has been read: it goes on beyond what is drawn. */
  open: boolean;
}) {
  const { bend: chosen, choose, lit } = useSelection();
  const fromA = part.held_end === "A";
  const left = part.end_a.allowance_mm + part.end_a.leave_long_mm + (fromA ? 0 : part.spare_mm);
  const right = part.end_b.allowance_mm + part.end_b.leave_long_mm + (fromA ? part.spare_mm : 0);
  const beyond = { A: piecesBeyond(follows, "A"), B: piecesBeyond(follows, "B") };
  const leftSide = SIDE + beyond.A * PIECE_W;
  const scale =
    (width - leftSide - SIDE - beyond.B * PIECE_W - (left + right > 0 ? 20 : 0)) /
    Math.max(1, part.developed_mm + left + right);
  const x = (mm: number) => leftSide + 10 + (mm + left) * scale;
  const topLanes = lanes(
    part.bends.map((bend) => x(bend.middle_mm)),
    66,
    2,
  );
  const step = (by: number) => {
    const count = part.bends.length;
    if (count > 0) choose(chosen === null ? (by > 0 ? 1 : count) : Math.min(count, Math.max(1, chosen + by)));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowRight") step(1);
    else if (event.key === "ArrowLeft") step(-1);
    else return;
    event.preventDefault();
  };
  return (
    <svg
      width={width}
      height={HEIGHT - 2}
      viewBox={`0 0 ${width} ${HEIGHT - 2}`}
      role="group"
      aria-label={`The tube unrolled, ${sayLength(part.developed_mm, unit)} from A to B. Arrow keys walk the bends.`}
      tabIndex={0}
      onKeyDown={onKeyDown}
      style={{ opacity: old ? 0.45 : 1, display: "block", fontFamily: condensed, outlineOffset: -3 }}
      data-old={old}
    >
      <rect x={x(0)} y={TUBE_Y} width={Math.max(0, part.developed_mm * scale)} height={TUBE_H} fill="var(--tube)" />
      <rect x={x(0)} y={TUBE_Y + 4} width={Math.max(0, part.developed_mm * scale)} height={2} fill="var(--light)" />
      {part.bends.map((bend) => (
        <g
          key={bend.number}
          data-bend={bend.number}
          data-chosen={chosen === bend.number}
          onClick={() => choose(bend.number)}
          style={{ cursor: "pointer" }}
        >
          <rect
            x={x(bend.start_mm)}
            y={TUBE_Y}
            width={Math.max(2, bend.arc_mm * scale)}
            height={TUBE_H}
            fill={chosen === bend.number ? "var(--ink)" : "var(--bend)"}
          />
          <rect
            x={x(bend.middle_mm) - 26}
            y={topLanes[bend.number - 1] === 1 ? 10 : 44}
            width={60}
            height={TUBE_Y + TUBE_H - (topLanes[bend.number - 1] === 1 ? 10 : 44)}
            fill="transparent"
          >
            <title>{`Bend ${bend.number}: ${sayAngle(bend.angle_deg)}, plane ${sayClock(bend.clock_deg)}, ${sayLength(bend.start_mm, unit)} to ${sayLength(bend.end_mm, unit)} from A`}</title>
          </rect>
          <Head
            x={x(bend.middle_mm)}
            lane={topLanes[bend.number - 1] ?? -1}
            number={bend.number}
            angle={bend.angle_deg}
            clock={bend.clock_deg}
            chosen={chosen === bend.number}
          />
        </g>
      ))}
      {looked && <Found looked={looked} x={x} y={TUBE_Y} h={TUBE_H} />}
      {lit && <Lit from={x(lit.from)} to={x(lit.to)} severity={lit.severity} />}
      <EndMark
        end={part.end_a}
        x={x(0)}
        y={TUBE_Y}
        h={TUBE_H}
        scale={scale}
        towards={-1}
        held={fromA}
        beyond={fromA && part.end_a.leave_long_mm > 0 ? left * scale : 0}
      />
      {open ? (
        <GoesOn x={x(part.developed_mm)} />
      ) : (
        <EndMark
          end={part.end_b}
          x={x(part.developed_mm)}
          y={TUBE_Y}
          h={TUBE_H}
          scale={scale}
          towards={1}
          held={!fromA}
          beyond={!fromA && part.end_b.leave_long_mm > 0 ? right * scale : 0}
        />
      )}
      {follows && (
        <Pieces
          pieces={follows.pieces}
          starts={{ A: beyond.A * PIECE_W + 8, B: width - beyond.B * PIECE_W - 8 }}
          y={TUBE_Y}
          h={TUBE_H}
        />
      )}
      {follows && <Weakest chosen={follows} x={x} />}
      <Spare part={part} x={x} unit={unit} fromA={fromA} />
      <HeldLong part={part} x={x} fromA={fromA} />
      <Marks part={part} x={x} unit={unit} chosen={chosen} choose={choose} />
      <Ruler part={part} x={x} unit={unit} fromA={fromA} />
    </svg>
  );
}

const piecesBeyond = (follows: Chosen | null, end: "A" | "B") =>
  follows ? [...follows.pieces.hoses, ...follows.pieces.parts].filter((piece) => piece.end === end).length : 0;

/** The place that governs what the line stands. */
function Weakest({ chosen, x }: { chosen: Chosen; x: (mm: number) => number }) {
  const weakest = chosen.strength?.elements.find((element) => element.id === chosen.strength?.weakest);
  if (!weakest || weakest.where.from_mm == null || weakest.where.to_mm == null || chosen.carried?.duty.vacuum)
    return null;
  const middle = (x(weakest.where.from_mm) + x(weakest.where.to_mm)) / 2;
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

function Head({
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

function Lit({ from, to, severity }: { from: number; to: number; severity: string }) {
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

function Spare({ part, x, unit, fromA }: { part: Part; x: (mm: number) => number; unit: Unit; fromA: boolean }) {
  const end = fromA ? part.end_b : part.end_a;
  const room = end.allowance_mm + end.leave_long_mm + part.spare_mm;
  if (room <= 0) return null;
  const a = fromA ? x(part.developed_mm) : x(-room);
  const b = fromA ? x(part.developed_mm + room) : x(0);
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
      <text
        x={fromA ? b + 5 : a - 5}
        y={TUBE_Y + 9}
        fontSize="13"
        fill="var(--second)"
        textAnchor={fromA ? "start" : "end"}
      >
        {end.leave_long_mm > 0
          ? `long ${sayFigure(end.leave_long_mm + part.spare_mm, unit)}`
          : part.spare_mm > 0
            ? `spare ${sayFigure(part.spare_mm, unit)}`
            : "flare"}
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
    </g>
  );
}

/** What the held end is left long by; the marks are measured from its tip. */
function HeldLong({ part, x, fromA }: { part: Part; x: (mm: number) => number; fromA: boolean }) {
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

function Marks({
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

/** The ruler starts where the marks are measured from: the held end, flared rim or cut end. */
function Ruler({ part, x, unit, fromA }: { part: Part; x: (mm: number) => number; unit: Unit; fromA: boolean }) {
  const held = fromA ? part.end_a : part.end_b;
  const lead = held.order === "before" ? 0 : held.allowance_mm + held.leave_long_mm;
  const total = part.developed_mm + lead;
  const { tick, label } = rulerSteps(total, unit);
  const place = (mm: number) => (fromA ? x(mm - lead) : x(part.developed_mm + lead - mm));
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
function GoesOn({ x }: { x: number }) {
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
