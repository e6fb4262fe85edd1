import Box from "@mui/material/Box";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import type { KeyboardEvent } from "react";
import type { Line, Part, RigidSpan, Unit } from "../../api/types";
import type { ChosenPlace } from "../../doc/select";
import { restructure, stillDamaged } from "../../doc/chain";
import { useSelection } from "../../doc/select";
import { useNotice } from "../../ui/notice";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import { GoesOn, Head, HeldLong, Lit, Marks, Ruler, Spare, TubeRuler, HEIGHT, TUBE_H, TUBE_Y, Weakest } from "./along";
import { CutMarks } from "./CutMarks";
import { Watched } from "./Watched";
import { EndMark } from "./EndMark";
import { Found } from "./Found";
import { Names } from "./Names";
import { lanes } from "./lanes";
import { Around, Between, Break, JointMark } from "./Between";
import type { Layout, Piece, Segment } from "./layout";
import { GAP, layoutOf } from "./layout";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

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
      {view.drawn || editor.document.spans.some((span) => span.kind !== "rigid") ? (
        <Unrolled editor={editor} view={view} width={width} />
      ) : (
        <Box sx={{ p: 3, color: "var(--second)" }}>The tube is laid out here, to scale, as it is read.</Box>
      )}
    </Box>
  );
}

const beyondOf = (part: Part) => {
  const fromA = part.held_end === "A";
  return {
    before: part.end_a.allowance_mm + part.end_a.leave_long_mm + (fromA ? 0 : part.spare_mm),
    behind: part.end_b.allowance_mm + part.end_b.leave_long_mm + (fromA ? part.spare_mm : 0),
  };
};

/** Every span of the chain with the length that is known of it. */
function piecesOf(line: Line, view: PlanView, tube: string): Piece[] {
  const chosen = view.growing ? null : view.plan?.chosen;
  return line.spans.map((span) => {
    if (span.kind === "rigid") {
      const own = view.plan?.pieces.find((one) => one.span === span.id);
      const part = span.id === tube ? view.drawn : (own?.part ?? null);
      const worked = span.id === tube && part ? beyondOf(part) : { before: 0, behind: 0 };
      return { id: span.id, kind: span.kind, mm: part?.developed_mm ?? null, ...worked };
    }
    const placed =
      span.kind === "hose"
        ? chosen?.pieces.hoses.find((one) => one.stands.span === span.id)
        : chosen?.pieces.components.find((one) => one.stands.span === span.id);
    return { id: span.id, kind: span.kind, mm: placed?.length_mm ?? null, before: 0, behind: 0 };
  });
}

function Unrolled({ editor, view, width }: Props & { width: number }) {
  const { bend: chosen, choose, place, choosePlace, lit, cuts } = useSelection();
  const line = editor.document;
  const notice = useNotice();
  const { unit } = line;
  const part = view.drawn;
  const open = view.growing;
  const old = view.old && !open;
  const looked = open ? null : (view.plan?.looked ?? null);
  const follows = open ? null : (view.plan?.chosen ?? null);
  const layout = useMemo(
    () => layoutOf(piecesOf(line, view, part?.span ?? editor.tube), width),
    [line, view, part, editor.tube, width],
  );
  const stops = placesOf(line);
  const onlyHose = layout.segments.find((one) => one.kind === "hose");
  const walk = (by: number) => {
    const at = place ? stops.findIndex((one) => one.kind === place.kind && one.id === place.id) : -1;
    const next = at < 0 ? (by > 0 ? 0 : stops.length - 1) : Math.min(stops.length - 1, Math.max(0, at + by));
    choosePlace(stops[next] ?? null);
  };
  const step = (by: number) => {
    const count = part?.bends.length ?? 0;
    if (count > 0) choose(chosen === null ? (by > 0 ? 1 : count) : Math.min(count, Math.max(1, chosen + by)));
  };
  const takeOut = (id: string) =>
    void restructure(editor, { kind: "remove", span: id }).then((done) =>
      done.span === null ? notice({ text: done.problem }) : choosePlace({ kind: "span", id: done.span }),
    );
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Delete" && place?.kind === "span") takeOut(place.id);
    const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (by === 0) return;
    if (event.shiftKey) walk(by);
    else step(by);
    event.preventDefault();
  };
  const total = part?.developed_mm ?? 0;
  return (
    <svg
      width={width}
      height={HEIGHT - 2}
      viewBox={`0 0 ${width} ${HEIGHT - 2}`}
      role="group"
      aria-label={
        part
          ? `The tube unrolled, ${sayLength(total, unit)} from A to B. Arrow keys walk the bends, with Shift the pieces and joints of the line.`
          : "The line unrolled. Arrow keys with Shift walk its pieces and joints."
      }
      tabIndex={0}
      onKeyDown={onKeyDown}
      style={{ opacity: old ? 0.45 : 1, display: "block", fontFamily: condensed, outlineOffset: -3 }}
      data-old={old}
    >
      {layout.segments.map((segment, k) => {
        const span = line.spans[k];
        if (!span || span.kind !== "rigid") return null;
        const own = span.id === part?.span ? part : view.plan?.pieces.find((one) => one.span === span.id)?.part;
        return <TubeOf key={span.id} span={span} segment={segment} part={own ?? null} layout={layout} unit={unit} />;
      })}
      {part && (
        <Worked
          part={part}
          layout={layout}
          unit={unit}
          open={open}
          chosen={chosen}
          choose={choose}
          several={line.spans.length > 1}
          first={line.spans[0]?.id === part.span}
          last={line.spans.at(-1)?.id === part.span}
          stays={line.spans.some((one) => one.id === part.span && one.kind === "rigid" && one.state === "stays")}
        />
      )}
      {layout.segments.map((segment, k) => {
        const span = line.spans[k];
        return span && span.kind !== "rigid" && !open ? (
          <Between
            key={span.id}
            segment={segment}
            span={span}
            chosen={follows}
            laid={view.plan?.hoses ?? []}
            unit={unit}
            alone={line.spans.length === 1}
          />
        ) : null;
      })}
      {!open && <Names line={line} layout={layout} plan={view.plan} worked={part?.span ?? ""} />}
      {!part && onlyHose && onlyHose.mm !== null && (
        <Ruler from={onlyHose.x} to={onlyHose.x + onlyHose.width} total={onlyHose.mm} unit={unit} />
      )}
      {layout.segments.slice(0, -1).map((segment, k) => (
        <JointMark key={segment.id} line={line} at={k} x={segment.x + segment.width + GAP / 2} />
      ))}
      {looked && (
        <Found
          looked={{ ...looked, damage: stillDamaged(line, looked) }}
          x={(span, mm) => layout.x(span || editor.tube, mm)}
          y={TUBE_Y}
          h={TUBE_H}
        />
      )}
      {lit && (
        <Lit
          from={layout.x(lit.span || editor.tube, lit.from)}
          to={layout.x(lit.span || editor.tube, lit.to)}
          severity={lit.severity}
        />
      )}
      <Watched layout={layout} />
      {cuts && <CutMarks cuts={cuts} unit={unit} x={(mm) => layout.x(cuts.span, mm)} />}
      <PortMark end="A" x={(layout.segments[0]?.x ?? 40) - 40} />
      {!open && <PortMark end="B" x={endOf(layout) + 40} />}
      {follows && <Weakest chosen={follows} x={layout.x} />}
    </svg>
  );
}

const endOf = ({ segments }: Layout): number => {
  const last = segments.at(-1);
  return last ? last.x + last.width : 76;
};

/** Everything of the chain that can be chosen, from port A to port B. */
const placesOf = (line: Line): ChosenPlace[] => [
  { kind: "port", id: "A" },
  ...line.spans.flatMap((span, k): ChosenPlace[] => [
    { kind: "span", id: span.id },
    ...(k < line.spans.length - 1 ? [{ kind: "joint" as const, id: span.id }] : []),
  ]),
  { kind: "port", id: "B" },
];

/** The letter of a port, beyond everything that leads to it. */
function PortMark({ end, x }: { end: "A" | "B"; x: number }) {
  const { place, choosePlace } = useSelection();
  const here = place?.kind === "port" && place.id === end;
  return (
    <g
      data-port={end}
      data-chosen={here}
      onClick={() => choosePlace(here ? null : { kind: "port", id: end })}
      style={{ cursor: "pointer" }}
    >
      <title>{`Port ${end}`}</title>
      <rect x={x - 20} y={TUBE_Y - 26} width={40} height={44} fill="transparent" />
      <text
        x={x}
        y={TUBE_Y - 8}
        textAnchor="middle"
        fontSize="21"
        fontWeight={600}
        fill={here ? "var(--action)" : "var(--ink)"}
      >
        {end}
      </text>
    </g>
  );
}

/** One tube of the chain: to make in the tube's own colour, old tube that stays grey. */
function TubeOf({
  span,
  segment,
  part,
  layout,
  unit,
}: {
  span: RigidSpan;
  segment: Segment;
  part: Part | null;
  layout: Layout;
  unit: Unit;
}) {
  const { place, choosePlace } = useSelection();
  const here = place?.kind === "span" && place.id === span.id;
  const stays = span.state === "stays";
  const from = part ? layout.x(span.id, 0) : segment.x;
  const to = part ? layout.x(span.id, part.developed_mm) : segment.x + segment.width;
  return (
    <g
      data-tube={span.id}
      data-state={span.state}
      data-chosen={here}
      onClick={() => choosePlace({ kind: "span", id: span.id })}
      style={{ cursor: "pointer" }}
    >
      <title>{`${stays ? "old tube that stays" : "tube to make"}${part ? `, ${sayLength(part.developed_mm, unit)}` : ", not read yet"}`}</title>
      <rect
        x={from}
        y={TUBE_Y}
        width={Math.max(0, to - from)}
        height={TUBE_H}
        fill={stays ? "var(--old)" : "var(--tube)"}
        opacity={part ? 1 : 0.4}
      />
      {!stays && part && <rect x={from} y={TUBE_Y + 4} width={Math.max(0, to - from)} height={2} fill="var(--light)" />}
      {part?.bends.map((bend) => (
        <rect
          key={bend.id}
          x={layout.x(span.id, bend.start_mm)}
          y={TUBE_Y}
          width={Math.max(2, layout.x(span.id, bend.end_mm) - layout.x(span.id, bend.start_mm))}
          height={TUBE_H}
          fill={stays ? "var(--oldBend)" : "var(--bend)"}
        />
      ))}
      {!part && <Break x={segment.x + segment.width / 2} />}
      {here && <Around x={segment.x - 3} width={segment.width + 6} />}
    </g>
  );
}

/** The tube that is worked on: its bends with their clocks, nuts and flares, spare, marks and ruler. */
function Worked({
  part,
  layout,
  unit,
  open,
  chosen,
  choose,
  several,
  stays,
  first,
  last,
}: {
  part: Part;
  layout: Layout;
  unit: Unit;
  /** Not all of it has been read: it goes on beyond what is drawn. */
  open: boolean;
  chosen: number | null;
  choose: (bend: number | null) => void;
  several: boolean;
  /** It begins at port A, or ends at port B: there is room beside it. */
  first: boolean;
  last: boolean;
  /** Old tube: nothing is held, marked or cut off it here. */
  stays: boolean;
}) {
  const fromA = part.held_end === "A";
  const x = (mm: number) => layout.x(part.span, mm);
  const scale = x(1) - x(0);
  const left = part.end_a.allowance_mm + part.end_a.leave_long_mm + (fromA ? 0 : part.spare_mm);
  const right = part.end_b.allowance_mm + part.end_b.leave_long_mm + (fromA ? part.spare_mm : 0);
  const topLanes = lanes(
    part.bends.map((bend) => x(bend.middle_mm)),
    66,
    2,
  );
  return (
    <>
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
            fill={chosen === bend.number ? "var(--ink)" : stays ? "var(--oldBend)" : "var(--bend)"}
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
      <EndMark
        end={part.end_a}
        x={x(0)}
        y={TUBE_Y}
        h={TUBE_H}
        scale={scale}
        towards={-1}
        held={fromA && !stays && first}
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
          held={!fromA && !stays && last}
          beyond={!fromA && part.end_b.leave_long_mm > 0 ? right * scale : 0}
        />
      )}
      {!stays && (
        <>
          <Spare part={part} x={x} unit={unit} fromA={fromA} quiet={several} />
          <HeldLong part={part} x={x} fromA={fromA} />
          <Marks part={part} x={x} unit={unit} chosen={chosen} choose={choose} />
        </>
      )}
      <TubeRuler part={part} x={x} unit={unit} fromA={fromA} />
    </>
  );
}
