import type { Part } from "../api/types";

type Point = [number, number, number];

/** What of a part its centreline follows from. */
export type Shape = Pick<Part, "last_straight_mm"> & {
  bends: readonly Pick<Part["bends"][number], "straight_mm" | "rotation_deg" | "angle_deg" | "radius_mm" | "arc_mm">[];
};

const cross = ([ax, ay, az]: Point, [bx, by, bz]: Point): Point => [
  ay * bz - az * by,
  az * bx - ax * bz,
  ax * by - ay * bx,
];
const along = ([x, y, z]: Point, [dx, dy, dz]: Point, by: number): Point => [x + dx * by, y + dy * by, z + dz * by];
const radians = (deg: number) => (deg * Math.PI) / 180;

/** Turned about an axis square to it. */
const turned = (way: Point, axis: Point, by: number): Point => {
  const side = cross(axis, way);
  return along([way[0] * Math.cos(by), way[1] * Math.cos(by), way[2] * Math.cos(by)], side, Math.sin(by));
};

/** Points to draw a tube by, each with its place along it in mm: from the origin along +x, the first bend turning
 * towards +y, arcs cut every few degrees. The core computes everything else; this only keeps the answer small. */
export function centreline({ bends, last_straight_mm }: Shape, stepDeg = 6): [number, Point][] {
  let at = 0;
  let here: Point = [0, 0, 0];
  let way: Point = [1, 0, 0];
  let normal: Point = [0, 0, 1];
  const drawn: [number, Point][] = [[at, here]];
  const straight = (length: number) => {
    at += length;
    here = along(here, way, length);
    drawn.push([at, here]);
  };
  for (const bend of bends) {
    straight(bend.straight_mm);
    normal = turned(normal, way, radians(bend.rotation_deg));
    const [start, first, inward] = [here, way, cross(normal, way)];
    const count = Math.max(1, Math.ceil(bend.angle_deg / stepDeg - 1e-9));
    for (let k = 1; k <= count; k++) {
      const by = radians((bend.angle_deg * k) / count);
      here = along(along(start, first, bend.radius_mm * Math.sin(by)), inward, bend.radius_mm * (1 - Math.cos(by)));
      drawn.push([at + (bend.arc_mm * k) / count, here]);
    }
    at += bend.arc_mm;
    way = turned(first, normal, radians(bend.angle_deg));
  }
  straight(last_straight_mm);
  return drawn;
}
