import { expect, it } from "vitest";
import type { Piece } from "./layout";
import { GAP, LEAST, layoutOf, UNKNOWN } from "./layout";

const piece = (id: string, kind: Piece["kind"], mm: number | null, before = 0, behind = 0): Piece => ({
  id,
  kind,
  mm,
  before,
  behind,
});

it("lays the whole line out to one scale, in its order", () => {
  const { segments, scale, x } = layoutOf([piece("s1", "rigid", 600), piece("h1", "hose", 300)], 1280);
  expect(segments.map((one) => one.width / (one.mm ?? 1))).toEqual([scale, scale]);
  expect(segments[1]?.x).toBeCloseTo((segments[0]?.x ?? 0) + (segments[0]?.width ?? 0) + GAP);
  expect(x("h1", 300)).toBeCloseTo(1280 - 76);
  expect(x("s1", 0)).toBe(76);
});

it("draws a length that nobody knows as a break, and what is short wide enough to press", () => {
  const { segments, scale } = layoutOf(
    [piece("s1", "rigid", 2000), piece("c1", "component", 20), piece("h1", "hose", null)],
    1024,
  );
  expect(segments.map((one) => one.broken)).toEqual([false, true, true]);
  expect(segments.slice(1).map((one) => one.width)).toEqual([LEAST.component, UNKNOWN.hose]);
  expect(segments.reduce((sum, one) => sum + one.width, 0)).toBeCloseTo(1024 - 2 * 76 - 2 * GAP);
  expect(scale).toBeCloseTo((segments[0]?.width ?? 0) / 2000);
});

it("keeps the rims of a tube within what is drawn beyond them", () => {
  const { x, scale } = layoutOf([piece("s1", "rigid", 500, 10, 40)], 900);
  expect(x("s1", 0) - x("s1", -10)).toBeCloseTo(10 * scale);
  expect(x("s1", 540)).toBeCloseTo(900 - 76);
});
