import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Part } from "../../api/types";
import { centreline } from "../../doc/centreline";
import { alongOf, pointAlong, runsOf } from "./figure";

const cut = (value: number) => Math.trunc(value * 1e6) / 1e6;

/** A part as the answer tells it, digits beyond a millionth left out. */
function told(legs: readonly number[], radius: number) {
  let at = 0;
  const bends = legs.map((straight, k) => {
    const start = at + straight;
    const arc = (radius * Math.PI) / 3;
    at = start + arc;
    const bend = { straight_mm: cut(straight), rotation_deg: k % 2 ? 90 : 0, angle_deg: 60, radius_mm: radius };
    return { ...bend, number: k + 1, arc_mm: cut(arc), start_mm: cut(start), end_mm: cut(at) };
  });
  return { bends, last_straight_mm: 33.333333, developed_mm: cut(at + 100 / 3) };
}

test("every straight and bend of a long part has points to be drawn by, its ends included", () => {
  const part = told(
    Array.from({ length: 30 }, (_, k) => 20 + k / 7),
    14 / 3,
  );
  const path = centreline(part).map(([at, point]): [number, Vector3] => [at, new Vector3(...point)]);
  const runs = runsOf(part as unknown as Part);
  expect(runs).toHaveLength(61);
  for (const run of runs) {
    const points = alongOf({ path }, run.from, run.to);
    const [first, last] = [points[0], points[points.length - 1]];
    expect(points.length).toBeGreaterThanOrEqual(run.bend === null ? 2 : 11);
    if (run.bend === null) expect(first?.distanceTo(last ?? first)).toBeCloseTo(run.to - run.from, 3);
  }
});

test("a clip sits so far along the way as it was measured, looking along it, and nowhere beyond its end", () => {
  const corner = [new Vector3(0, 0, 0), new Vector3(100, 0, 0), new Vector3(100, 50, 0)];
  expect(pointAlong(corner, 40)).toEqual({ at: new Vector3(40, 0, 0), way: new Vector3(1, 0, 0) });
  expect(pointAlong(corner, 120)).toEqual({ at: new Vector3(100, 20, 0), way: new Vector3(0, 1, 0) });
  expect(pointAlong(corner, 151)).toBeNull();
  expect(pointAlong([], 0)).toBeNull();
});
