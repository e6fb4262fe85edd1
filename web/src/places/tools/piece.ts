/** A point of a drawing: x to the right, y down. */
export interface Point {
  x: number;
  y: number;
}

/** A dimension: from where to where its figure counts, and how far beside the tube it is drawn. */
export interface Dimension {
  from: Point;
  to: Point;
  /** The way from the tube to the dimension line, as a unit vector. */
  away: Point;
}

export interface Piece {
  /** Centreline as an SVG path. */
  path: string;
  start: Point;
  end: Point;
  /** Where the mark lies: the start of the bend. */
  mark: Point;
  corner: Point | null;
  clamped: Dimension;
  free: Dimension;
  /** Only where the legs run back beside each other. */
  width: Dimension | null;
}

const LEG = 150;
export const RADIUS = 36;
export const TUBE = 14;
const HOOKED_DEG = 150;
const U_DEG = 175;

const add = (a: Point, b: Point, by = 1): Point => ({ x: a.x + b.x * by, y: a.y + b.y * by });

/**
 * How a bent test piece is read: legs to the outside corner up to 150°, from there with the tape hooked over the back,
 * a U across its outside as well.
 */
export function pieceAt(degrees: number): Piece {
  const angle = (Math.min(Math.max(degrees, 1), 180) * Math.PI) / 180;
  const start = { x: 0, y: 0 };
  const mark = { x: LEG, y: 0 };
  const centre = { x: LEG, y: -RADIUS };
  const way = { x: Math.cos(angle), y: -Math.sin(angle) };
  const outward = { x: Math.sin(angle), y: Math.cos(angle) };
  const bent = add(centre, outward, RADIUS);
  const end = add(bent, way, LEG * 0.8);
  const under = { x: 0, y: 1 };
  const half = TUBE / 2;
  const path = `M${start.x} ${start.y} H${mark.x} A${RADIUS} ${RADIUS} 0 0 0 ${bent.x} ${bent.y} L${end.x} ${end.y}`;
  const edgeA = add(start, under, half);
  const edgeB = add(end, outward, half);
  if (degrees < HOOKED_DEG) {
    const reach = (RADIUS + half) * Math.tan(angle / 2);
    const corner = { x: mark.x + reach, y: half };
    return {
      path,
      start,
      end,
      mark,
      corner,
      clamped: { from: edgeA, to: corner, away: under },
      free: { from: edgeB, to: corner, away: outward },
      width: null,
    };
  }
  const back = { x: centre.x + RADIUS + half, y: half };
  const backB = add(add(centre, way, -(RADIUS + half)), outward, RADIUS + half);
  return {
    path,
    start,
    end,
    mark,
    corner: null,
    clamped: { from: edgeA, to: back, away: under },
    free: { from: edgeB, to: backB, away: outward },
    width: degrees >= U_DEG ? { from: edgeA, to: { x: 0, y: edgeB.y }, away: { x: -1, y: 0 } } : null,
  };
}
