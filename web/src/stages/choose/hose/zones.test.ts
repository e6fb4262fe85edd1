import { describe, expect, it } from "vitest";
import { shownTo, zonesOf } from "./zones";

const at = (length_mm: number) => ({ length_mm, radius_mm: 0, reach_mm: 0 });
const windows = {
  windows: [
    { least: at(484), most: at(522) },
    { least: at(1120), most: at(1375) },
  ],
  over: [at(475), at(900), at(1375)],
};

describe("the bar of lengths", () => {
  it("shows the first window large, and goes on to a length that lies beyond it", () => {
    expect(shownTo(windows, null)).toBeCloseTo(475 + 47 * 1.35);
    expect(shownTo(windows, 1200)).toBe(1375);
    expect(shownTo({ ...windows, windows: [] }, 500)).toBe(1375);
  });
  it("leaves no gap and ends where it is shown to", () => {
    expect(zonesOf(windows, 475, 1200)).toEqual([
      { from_mm: 475, to_mm: 484, is: "tight" },
      { from_mm: 484, to_mm: 522, is: "keeps" },
      { from_mm: 522, to_mm: 1120, is: "tight" },
      { from_mm: 1120, to_mm: 1200, is: "keeps" },
    ]);
    expect(zonesOf({ ...windows, windows: [] }, 475, 600)).toEqual([{ from_mm: 475, to_mm: 600, is: "tight" }]);
    expect(zonesOf(windows, 490, 510)).toEqual([{ from_mm: 490, to_mm: 510, is: "keeps" }]);
  });
});
