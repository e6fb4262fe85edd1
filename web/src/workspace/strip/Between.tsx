import type { ReactNode } from "react";
import type { Chosen, LaidHose, Line, PlacedHose, Span, Unit } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { Segment } from "./layout";
import { TUBE_H, TUBE_Y } from "./along";
import { HoseMark } from "./HoseMark";
import { Sign } from "../Sign";

const MIDDLE = TUBE_Y + TUBE_H / 2;

interface Props {
  segment: Segment;
  span: Span;
  chosen: Chosen | null;
  laid: readonly LaidHose[];
  unit: Unit;
  /** It is all of the line: nothing else could be meant. */
  alone: boolean;
}

/** One hose or component on the strip, in its place and to scale; a length that is not known is a break. */
export function Between({ segment, span, chosen, laid, unit, alone }: Props) {
  if (span.kind === "hose") {
    const placed = chosen?.pieces.hoses.find((one) => one.stands.span === span.id);
    return (
      <Pressed segment={segment} alone={alone} data={{ "data-hose": span.id }} name={nameOfHose(placed, segment)}>
        <HoseMark
          segment={segment}
          span={span}
          placed={placed}
          laid={laid.find((one) => one.span === span.id)}
          unit={unit}
        />
        {segment.mm === null && <Break x={segment.x + segment.width / 2} />}
      </Pressed>
    );
  }
  if (span.kind !== "component") return null;
  const middle = segment.x + segment.width / 2;
  const points = span.points === "not marked" ? undefined : span.points;
  return (
    <Pressed
      segment={segment}
      alone={alone}
      data={{ "data-part": span.id }}
      name={`${span.what}, ${points ? `points to ${points}` : "no arrow seen"}`}
    >
      <line
        x1={segment.x}
        x2={segment.x + segment.width}
        y1={MIDDLE}
        y2={MIDDLE}
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      <Sign what={span.what} x={middle} y={MIDDLE} points={points} />
    </Pressed>
  );
}

const nameOfHose = (placed: PlacedHose | undefined, segment: Segment): string =>
  `${placed ? `${placed.hose_class.name} ${placed.hose.size}, ${placed.piece.joined}` : "hose"}${segment.mm === null ? ", length not known" : ""}`;

/** Something of the chain that can be chosen, by a press or by walking the strip. */
function Pressed({
  segment,
  alone,
  data,
  name,
  children,
}: {
  segment: Segment;
  alone: boolean;
  data: Record<string, string>;
  name: string;
  children: ReactNode;
}) {
  const { place, choosePlace } = useSelection();
  const here = place?.kind === "span" && place.id === segment.id;
  return (
    <g
      {...data}
      data-chosen={here}
      onClick={() => choosePlace(here ? null : { kind: "span", id: segment.id })}
      style={{ cursor: "pointer" }}
    >
      <title>{name}</title>
      <rect x={segment.x - 4} y={TUBE_Y - 14} width={segment.width + 8} height={TUBE_H + 40} fill="transparent" />
      {children}
      {here && !alone && <Around x={segment.x - 4} width={segment.width + 8} />}
    </g>
  );
}

/** The line around what is chosen. */
export const Around = ({ x, width }: { x: number; width: number }) => (
  <rect
    x={x}
    y={TUBE_Y - 17}
    width={width}
    height={TUBE_H + 34}
    fill="none"
    stroke="var(--action)"
    strokeWidth="2"
    strokeDasharray="5 3"
  />
);

/** Two slashes: it is longer or shorter than it is drawn. */
export const Break = ({ x }: { x: number }) => (
  <g data-break>
    <rect x={x - 5} y={TUBE_Y - 4} width={10} height={TUBE_H + 8} fill="var(--sheet)" />
    <path
      d={`M${x - 7} ${TUBE_Y + TUBE_H + 4} l6 ${-TUBE_H - 8} M${x + 1} ${TUBE_Y + TUBE_H + 4} l6 ${-TUBE_H - 8}`}
      stroke="var(--ink)"
      strokeWidth="1.6"
    />
  </g>
);

/** What joins two neighbours: a union's hexagon, or the plain meeting of a hose and what it goes on. */
export function JointMark({ line, at, x }: { line: Line; at: number; x: number }) {
  const { place, choosePlace } = useSelection();
  const before = line.spans[at];
  const joint = line.joints[at];
  if (!before || !joint) return null;
  const here = place?.kind === "joint" && place.id === before.id;
  const union = joint.kind !== "" || (before.kind === "rigid" && line.spans[at + 1]?.kind === "rigid");
  return (
    <g
      data-joint={before.id}
      data-chosen={here}
      onClick={() => choosePlace(here ? null : { kind: "joint", id: before.id })}
      style={{ cursor: "pointer" }}
    >
      <title>{joint.kind ? `joint: ${joint.kind}` : "joint"}</title>
      <rect x={x - 10} y={TUBE_Y - 10} width={20} height={TUBE_H + 20} fill="transparent" />
      {union ? (
        <path
          d={`M${x - 7} ${TUBE_Y + 2} l7 -6 l7 6 v${TUBE_H - 4} l-7 6 l-7 -6 z`}
          fill="var(--nut)"
          stroke={here ? "var(--action)" : "var(--ink)"}
          strokeWidth={here ? 2.6 : 1.5}
        />
      ) : (
        <circle
          cx={x}
          cy={MIDDLE}
          r={4}
          fill={here ? "var(--action)" : "var(--sheet)"}
          stroke={here ? "var(--action)" : "var(--second)"}
          strokeWidth="1.5"
        />
      )}
    </g>
  );
}
