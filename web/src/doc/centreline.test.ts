import { describe, expect, test } from "vitest";
import { centreline } from "./centreline";

const bend = (straight_mm: number, rotation_deg: number, angle_deg: number, radius_mm = 10) => ({
  straight_mm,
  rotation_deg,
  angle_deg,
  radius_mm,
  arc_mm: (radius_mm * angle_deg * Math.PI) / 180,
});

const close = (found: readonly number[], wanted: readonly number[]) =>
  wanted.forEach((value, k) => expect(found[k]).toBeCloseTo(value, 9));

describe("the centreline of a part", () => {
  test("a straight tube has two points", () => {
    expect(centreline({ bends: [], last_straight_mm: 80 })).toEqual([
      [0, [0, 0, 0]],
      [80, [80, 0, 0]],
    ]);
  });

  test("a right angle ends a radius further on and a radius up, its arc on the circle", () => {
    const points = centreline({ bends: [bend(100, 0, 90)], last_straight_mm: 50 });
    close(points.at(-1)?.[1] ?? [], [110, 60, 0]);
    expect(points.at(-1)?.[0]).toBeCloseTo(150 + 5 * Math.PI, 9);
    for (const [at, [x, y]] of points)
      if (at > 100 && at < 100 + 5 * Math.PI) expect(Math.hypot(x - 100, y - 10)).toBeCloseTo(10, 9);
  });

  test("a quarter turn of the plane leaves it: along x, along y, then along z", () => {
    const points = centreline({ bends: [bend(100, 0, 90), bend(80, 90, 90)], last_straight_mm: 50 });
    const [x, y, z] = points.at(-1)?.[1] ?? [0, 0, 0];
    close([x, y, Math.abs(z)], [110, 10 + 80 + 10, 60]);
  });

  test("whole turns come back to where they began", () => {
    close(centreline({ bends: [bend(0, 0, 360)], last_straight_mm: 0 }).at(-1)?.[1] ?? [], [0, 0, 0]);
  });
});
