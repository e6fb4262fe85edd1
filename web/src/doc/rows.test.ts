import { expect, test } from "vitest";
import type { Line, RigidSpan } from "../api/types";
import {
  bendIds,
  bendLike,
  bendRows,
  blankBend,
  editBends,
  editCorners,
  insertAt,
  isCopied,
  mainTube,
  moveRow,
  removeAt,
  rowAt,
  spanOf,
  withSpan,
} from "./rows";

const tube = (id: string, state: RigidSpan["state"], ...rows: string[]) => ({
  id,
  kind: "rigid",
  state,
  readings: { kind: "bends", alongside: false, rows: rows.map((row) => ({ id: row })) },
});
const corners = (...rows: string[]) => ({
  id: "c1",
  kind: "rigid",
  state: "to make",
  readings: { kind: "corners", rows: rows.map((row) => ({ id: row })) },
});
const line = (...spans: object[]) => ({ name: "Feed", spans }) as unknown as Line;

test("the tube that is worked on is the one to make, else the first", () => {
  expect(mainTube(line(tube("s1", "stays"), tube("s2", "to make")))?.id).toBe("s2");
  expect(mainTube(line({ id: "h1", kind: "hose" }))).toBeNull();
  expect(spanOf(line(tube("s1", "to make"), tube("s2", "to make")), "s2").id).toBe("s2");
});

test("one span is changed, the others stay as they are", () => {
  const both = line(tube("s1", "to make"), tube("s2", "to make"));
  const changed = withSpan(both, { turned: true }, "s2");
  expect(changed.spans[0]).toBe(both.spans[0]);
  expect(changed.spans[1]).toMatchObject({ id: "s2", turned: true });
});

test("rows are put in, taken out and moved by their places", () => {
  expect(insertAt(["a", "c"], 1, "b")).toEqual(["a", "b", "c"]);
  expect(removeAt(["a", "b", "c"], 1)).toEqual(["a", "c"]);
  expect(moveRow(["a", "b", "c"], 0, 2)).toEqual(["b", "c", "a"]);
  expect(moveRow(["a", "b", "c"], 2, 0)).toEqual(["c", "a", "b"]);
});

test("bends are the rows of legs, and the corner points but the two ends", () => {
  const legs = line(tube("s1", "to make", "r1", "r2"));
  expect(bendRows(legs).map((row) => row.id)).toEqual(["r1", "r2"]);
  expect(bendIds(spanOf(legs))).toEqual(["r1", "r2"]);
  const points = line(corners("p1", "p2", "p3", "p4"));
  expect(bendRows(points)).toEqual([]);
  expect(bendIds(spanOf(points))).toEqual(["p2", "p3"]);
});

test("only readings of the kind that is meant are edited", () => {
  const [legs, points] = [line(tube("s1", "to make", "r1")), line(corners("p1", "p2"))];
  expect(bendRows(editBends(legs, (was) => ({ ...was, rows: [] })))).toEqual([]);
  expect(editBends(points, (was) => ({ ...was, rows: [] }))).toBe(points);
  expect(editCorners(legs, (was) => ({ ...was, rows: [] }))).toBe(legs);
  expect(bendIds(spanOf(editCorners(points, (was) => ({ ...was, rows: [] }))))).toEqual([]);
});

test("a line copied alongside has no row of its own", () => {
  const beside = tube("s1", "to make");
  const copied = { ...beside, readings: { ...beside.readings, alongside: true } };
  const read = { ...tube("s1", "to make", "r1"), readings: { kind: "bends", alongside: true, rows: [{ id: "r1" }] } };
  expect([isCopied(line(copied)), isCopied(line(beside)), isCopied(line(read)), isCopied(line(corners("p1")))]).toEqual(
    [true, false, false, false],
  );
});

test("a new row is read as the one before it, and has nothing else of it", () => {
  const before = { ...blankBend("in"), id: "r1", read_from: "back", read_to: "centre", angle: { text: "90" } } as const;
  const after = bendLike("in", before);
  expect(after.angle.text).toBe("");
  expect(after.length).toMatchObject({ text: "", unit: "in" });
  expect(after.id).not.toBe("r1");
  expect([after.read_from, after.read_to]).not.toContain("");
});

test("a row is pointed at by the ids of its span and its own", () => {
  expect(rowAt("s1", "r2", "angle")).toBe("/spans/s1/readings/rows/r2/angle");
});
