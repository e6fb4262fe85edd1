import Box from "@mui/material/Box";
import { useLayoutEffect, useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import type { Chosen, Looked, Part, Unit } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import { GoesOn, Head, HeldLong, Lit, Marks, Ruler, Spare, HEIGHT, TUBE_H, TUBE_Y, Weakest } from "./along";
import { EndMark } from "./EndMark";
import { Found } from "./Found";
import { lanes } from "./lanes";
import { PIECE_W, Pieces } from "./Pieces";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

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
        <Box sx={{ p: 3, color: "var(--second)" }}>The tube is laid out here, to scale, from the first leg on.</Box>
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
