import { expect, test } from "vitest";
import type { DrawnEnd } from "../../api/types";
import { blankBend, blankSheet, sheetAsDrawn } from "./further";

const end = (x: number): DrawnEnd => ({ point: [x, 0, 0], way: [1, 0, 0], noon: [0, 1, 0], up: [0, 0, 1], bends: [] });

test("the sheet is the one that was drawn as the first figure was typed", () => {
  const first = sheetAsDrawn(blankSheet("mm"), { along: "2" }, end(100), "mm");
  expect(first.drawn).toEqual(end(100));
  const second = sheetAsDrawn(first, { off: "1" }, end(102), "in");
  expect([second.drawn, second.unit]).toEqual([end(100), "mm"]);
});

test("with the last figure the sheet is forgotten too", () => {
  const read = sheetAsDrawn(blankSheet("mm"), { along: "2", short: true }, end(100), "mm");
  expect(sheetAsDrawn(read, { along: " " }, end(102), "mm")).toEqual({ ...blankSheet("mm"), short: true });
});

test("a bend that is put in keeps the sheet before anything is read of it", () => {
  const put = sheetAsDrawn(blankSheet("mm"), { bends: [blankBend("r2")] }, end(100), "mm");
  expect([put.drawn, put.bends.length]).toEqual([end(100), 1]);
});
