import { expect, test } from "vitest";
import { feedWords, stopShort } from "./figures";

test("a tube is pushed on for a mark farther along, and drawn back for a nearer one", () => {
  expect([feedWords(12.5, "mm"), feedWords(-12.5, "mm"), feedWords(0, "mm")]).toEqual([
    "push the tube on by 12.5 mm",
    "draw the tube back by 12.5 mm",
    "push the tube on by 0 mm",
  ]);
});

test("what it springs back at the stop it springs back again at the end", () => {
  // the dial is to show 93 for 90; stopped at 83 it shows 81: two sprung back there too, nine are missing
  expect(stopShort(93, 90, 10, "81")).toEqual({ first_deg: 83, shows_deg: 80, on_deg: 92, there: false });
  // it sprang back as was thought: on to the figure that was told
  expect(stopShort(93, 90, 10, " 80° ").on_deg).toBe(93);
});

test("what is there already is not bent on", () => {
  expect(stopShort(93, 90, 10, "90.04")).toMatchObject({ there: false });
  expect(stopShort(93, 90, 10, "90.1")).toMatchObject({ there: true, on_deg: null });
});

test("nothing is told from what was not read, or of something else", () => {
  for (const reads of ["", " ", "soon", "60", "120", "30.5°x"])
    expect(stopShort(93, 90, 10, reads)).toMatchObject({ there: false, on_deg: null });
  expect(stopShort(93, 90, 10, "60.1").on_deg).not.toBeNull();
  expect(stopShort(93, 90, 10, "119.9").there).toBe(true);
});

test("a small bend is not stopped before its start", () => {
  expect(stopShort(6, 5, 10, "")).toMatchObject({ first_deg: 0, shows_deg: 0 });
});
