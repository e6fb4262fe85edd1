import { Matrix4, Vector3 } from "three";
import type { ComponentSpan, Frame, Line, Part, Plan, PlannedEnd, View } from "../../api/types";
import { centreline } from "../../doc/centreline";

export interface TubeFigure {
  part: Part;
  /** Old tube that is kept. */
  stays: boolean;
  /** It is not known yet how far it goes: end B has no end. */
  open: boolean;
  /** From the part's own frame into the line's. */
  into: Matrix4;
  /** Its centreline in its own frame, with the place along it in mm, and in the line's. */
  path: [number, Vector3][];
  points: Vector3[];
}

/** A hose or a component in the line's frame. */
export interface OtherFigure {
  span: string;
  what: ComponentSpan["what"] | "hose";
  points: Vector3[];
  /** Nobody knows its length, or the way that it lies. */
  guessed: boolean;
}

/** What holds the line, round its tube or hose in the line's frame. */
export interface ClipFigure {
  id: string;
  points: [Vector3, Vector3];
}

export interface FigureEnd {
  point: Vector3;
  outward: Vector3;
}

/** What stands on the stage: the tube that is worked on with its numbers, and the rest of the line around it. */
export interface Figure {
  main: TubeFigure | null;
  tubes: TubeFigure[];
  others: OtherFigure[];
  clips: ClipFigure[];
  ends: { A: FigureEnd; B: FigureEnd | null };
  views: Partial<Record<string, View>>;
}

const vector = ([x, y, z]: [number, number, number]) => new Vector3(x, y, z);

/** From the frame that a part is computed in into the one that its first end stands in. */
export function intoLine(frame: Frame): Matrix4 {
  const [way, normal] = [vector(frame.way), vector(frame.normal)];
  return new Matrix4().makeBasis(way, normal.clone().cross(way), normal).setPosition(vector(frame.point));
}

function tubeOf(part: Part, stays: boolean, open: boolean, into: Matrix4): TubeFigure {
  const path = centreline(part).map(([at, point]): [number, Vector3] => [at, vector(point)]);
  const points = path.map(([, point]) => point.clone().applyMatrix4(into));
  return { part, stays, open, into, path, points };
}

const alone = (end: PlannedEnd): FigureEnd => ({ point: vector(end.point), outward: vector(end.outward) });

/** The whole line where its plan places it; one tube in its own frame where there is no more of it, or where it lies
 * beyond what has been read. */
export function figureOf(drawn: Part | null, from: Plan | null, line: Line, open: boolean): Figure | null {
  const placed = from?.in_space ?? null;
  if (!placed || (drawn && !placed.spans.some((one) => one.span === drawn.span))) {
    if (!drawn) return null;
    const state = line.spans.find((span) => span.id === drawn.span);
    const main = tubeOf(drawn, state?.kind === "rigid" && state.state === "stays", open, new Matrix4());
    const ends = { A: alone(drawn.end_a), B: open ? null : alone(drawn.end_b) };
    const clips = clipsOf(from, [main], []);
    return { main, tubes: [main], others: [], clips, ends, views: drawn.views };
  }
  const tubes: TubeFigure[] = [];
  const others: OtherFigure[] = [];
  for (const one of placed.spans) {
    const span = line.spans.find((candidate) => candidate.id === one.span);
    const piece = from?.pieces.find((candidate) => candidate.span === one.span);
    const part = drawn?.span === one.span ? drawn : (piece?.part ?? piece?.so_far);
    if (part) {
      const unread = drawn?.span === one.span ? open : !piece?.part;
      tubes.push(tubeOf(part, span?.kind === "rigid" && span.state === "stays", unread, intoLine(one.starts)));
    } else {
      const what = span?.kind === "component" ? span.what : "hose";
      others.push({ span: one.span, what, points: one.path.map(vector), guessed: one.guessed });
    }
  }
  const [first, last] = [placed.spans[0], placed.spans[placed.spans.length - 1]];
  if (!first || !last) return null;
  return {
    main: tubes.find((tube) => tube.part.span === drawn?.span) ?? null,
    tubes,
    others,
    clips: clipsOf(from, tubes, others),
    ends: {
      A: { point: vector(first.starts.point), outward: vector(first.starts.way).negate() },
      B: placed.whole ? { point: vector(last.ends.point), outward: vector(last.ends.way) } : null,
    },
    views: placed.views,
  };
}

/** How long a clip is drawn, in mm: as wide as it is or a little more, so that it is seen. */
const CLIP_MM = 14;

/** Clips, sleeves and grommets where they sit; what names no piece is on the main tube. */
function clipsOf(from: Plan | null, tubes: TubeFigure[], others: OtherFigure[]): ClipFigure[] {
  return (from?.looked.fixtures ?? []).flatMap((one) => {
    const span = one.span || from?.main;
    const tube = tubes.find((candidate) => candidate.part.span === span);
    const way = tube ? tube.points : (others.find((candidate) => candidate.span === span)?.points ?? []);
    const middle = pointAlong(way, one.at_mm);
    return middle ? [{ id: one.id, points: around(middle) }] : [];
  });
}

function around({ at, way }: { at: Vector3; way: Vector3 }): [Vector3, Vector3] {
  return [at.clone().addScaledVector(way, -CLIP_MM / 2), at.clone().addScaledVector(way, CLIP_MM / 2)];
}

/** The point so far along a way, and where the way goes there; null beyond it. */
export function pointAlong(points: readonly Vector3[], mm: number): { at: Vector3; way: Vector3 } | null {
  let left = mm;
  for (const [k, next] of points.entries()) {
    const last = points[k - 1];
    if (!last) continue;
    const long = last.distanceTo(next);
    if (long > 0 && left <= long + SAME_MM) {
      const way = next.clone().sub(last).normalize();
      return { at: last.clone().addScaledVector(way, left), way };
    }
    left -= long;
  }
  return null;
}

/** Every point that is drawn. */
export const pointsOf = (figure: Figure): Vector3[] => [
  ...figure.tubes.flatMap((tube) => tube.points),
  ...figure.others.flatMap((other) => other.points),
];

export interface Run {
  bend: number | null;
  from: number;
  to: number;
}

/** What two places along a tube may differ by and still be one: the answer leaves out digits that nobody sees. */
const SAME_MM = 1e-3;

/** Straights and bends along a part, in their order. */
export function runsOf(part: Pick<Part, "bends" | "developed_mm">): Run[] {
  const runs: Run[] = [];
  let at = 0;
  for (const bend of part.bends) {
    if (Math.abs(bend.start_mm - at) > SAME_MM) runs.push({ bend: null, from: at, to: bend.start_mm });
    runs.push({ bend: bend.number, from: bend.start_mm, to: bend.end_mm });
    at = bend.end_mm;
  }
  if (Math.abs(part.developed_mm - at) > SAME_MM) runs.push({ bend: null, from: at, to: part.developed_mm });
  return runs;
}

/** Points of the centreline between two developed positions, both included. */
export function alongOf({ path }: Pick<TubeFigure, "path">, from: number, to: number): Vector3[] {
  const low = Math.min(from, to);
  const high = Math.max(from, to);
  const found = path.filter(([at]) => at >= low - SAME_MM && at <= high + SAME_MM).map(([, point]) => point);
  return found.filter((point, k) => k === 0 || point.distanceToSquared(found[k - 1] ?? point) > 1e-9);
}
