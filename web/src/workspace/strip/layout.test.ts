import { expect, test } from "vitest";
import type { Piece } from "./layout";
import { GAP, LEAST, layoutOf, UNKNOWN } from "./layout";

const piece = (id: string, mm: number | null, kind: Piece["kind"] = "rigid", before = 0, behind = 0): Piece => ({
  id,
  kind,
  mm,
  before,
  behind,
});
const SIDE = 76;

test("one tube takes the whole width", () => {
  const { segments, scale, x } = layoutOf([piece("s1", 500)], 652);
  expect([segments[0]?.x, segments[0]?.width, segments[0]?.broken, scale]).toEqual([SIDE, 500, false, 1]);
  expect([x("s1", 0), x("s1", 250), x("gone", 500)]).toEqual([SIDE, SIDE + 250, SIDE + 500]);
});

test("what is drawn before its rim shifts the rim", () => {
  const { segments, x } = layoutOf([piece("s1", 450, "rigid", 30, 20)], 652);
  expect([segments[0]?.width, x("s1", 0), x("s1", 450)]).toEqual([500, SIDE + 30, SIDE + 480]);
});

test("pieces follow one another to one scale", () => {
  const { segments, scale } = layoutOf([piece("s1", 300), piece("h1", 100, "hose"), piece("s2", 600)], 1184);
  expect(scale).toBeCloseTo(1);
  expect(segments.map(({ width }) => width)).toEqual([300, 100, 600]);
  expect(segments.map(({ x }) => x)).toEqual([SIDE, SIDE + 300 + GAP, SIDE + 400 + 2 * GAP]);
});

test("what is too short to be pressed takes its least width from the others", () => {
  const { segments, scale } = layoutOf([piece("s1", 1000), piece("c1", 5, "component")], 1000);
  expect([segments[1]?.width, segments[1]?.broken, segments[0]?.broken]).toEqual([LEAST.component, true, false]);
  expect((segments[0]?.width ?? 0) + (segments[1]?.width ?? 0)).toBeCloseTo(1000 - 2 * SIDE - GAP);
  expect(scale).toBeCloseTo((1000 - 2 * SIDE - GAP - LEAST.component) / 1000);
});

test("a length that nobody knows is drawn as one, and said to be broken", () => {
  const { segments } = layoutOf([piece("s1", 400), piece("h1", null, "hose"), piece("s2", null)], 1000);
  expect(segments.map(({ width, broken }) => [Math.round(width), broken])).toEqual([
    [1000 - 2 * SIDE - 2 * GAP - UNKNOWN.hose - UNKNOWN.rigid, false],
    [UNKNOWN.hose, true],
    [UNKNOWN.rigid, true],
  ]);
});

test("a narrow window still shows every piece, and no line is no segment", () => {
  const { segments } = layoutOf([piece("s1", 4000), piece("c1", 5, "component"), piece("s2", 4000)], 200);
  expect(segments.every(({ width }) => width > 0)).toBe(true);
  const none = layoutOf([], 800);
  expect([none.segments, none.x("s1", 10)]).toEqual([[], SIDE]);
});
