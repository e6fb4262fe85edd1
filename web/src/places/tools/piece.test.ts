import { expect, test } from "vitest";
import { pieceAt, RADIUS, TUBE } from "./piece";

const distance = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y);

test("a right angle is read to the outside corner of both legs", () => {
  const piece = pieceAt(90);
  expect(piece.corner).toEqual({ x: 150 + RADIUS + TUBE / 2, y: TUBE / 2 });
  expect(piece.clamped.to).toEqual(piece.corner);
  expect(piece.free.from.x).toBeCloseTo(150 + RADIUS + TUBE / 2);
});

test("both legs of any bend up to 149° meet in one corner, on the outside of both", () => {
  for (const degrees of [20, 60, 120, 149]) {
    const { corner, free } = pieceAt(degrees);
    if (!corner) throw new Error("there is a corner");
    const along = {
      x: (corner.x - free.from.x) / distance(corner, free.from),
      y: (corner.y - free.from.y) / distance(corner, free.from),
    };
    const angle = (degrees * Math.PI) / 180;
    expect(along.x).toBeCloseTo(-Math.cos(angle));
    expect(along.y).toBeCloseTo(Math.sin(angle));
  }
});

test("from 150° on the tape hooks over the back, which lies a radius and half a tube beyond the bend", () => {
  const piece = pieceAt(150);
  expect(piece.corner).toBeNull();
  expect(piece.clamped.to.x).toBeCloseTo(150 + RADIUS + TUBE / 2);
});

test("a U is read across its outside: two radii and a tube", () => {
  const { width } = pieceAt(180);
  if (!width) throw new Error("a U has a width");
  expect(distance(width.from, width.to)).toBeCloseTo(2 * RADIUS + TUBE);
  expect(pieceAt(150).width).toBeNull();
  expect([pieceAt(174).width, pieceAt(175).width?.away]).toEqual([null, { x: -1, y: 0 }]);
});

test("of a U both legs hook over one back", () => {
  const { clamped, free, end, mark } = pieceAt(180);
  expect(free.to.x).toBeCloseTo(clamped.to.x);
  expect(free.to.y).toBeCloseTo(-2 * RADIUS - TUBE / 2);
  // the free leg runs back over the clamped one, shorter than that
  expect(end.y).toBeCloseTo(-2 * RADIUS);
  expect([end.x > 0, end.x < mark.x]).toEqual([true, true]);
});
