import { expect, test } from "vitest";
import type { Readings, TakenReading } from "../../api/types";
import { readingName, saidTaken } from "./taken";

const one = (kind: TakenReading["kind"], read: number, taken: number): TakenReading => ({
  path: "",
  kind,
  read,
  taken,
  doubt: 0.5,
  trust: "",
});

test("what is taken is said where it is not what was read", () => {
  expect(saidTaken(one("angle", 90, 89.4), "mm")).toBe("taken 89.4°");
  expect(saidTaken(one("length", 100, 100.04), "mm")).toBe("");
  expect(saidTaken(one("plane", 90, 89.4), "in")).toBe("taken −0.6°");
  expect(saidTaken(one("length", 25.4, 26.2), "in")).toBe('taken 1 1/32"');
  expect(saidTaken(undefined, "mm")).toBe("");
});

test("a reading is called as in its table, and not at all once its row is gone", () => {
  const bends = { kind: "bends", rows: [{ id: "r1" }, { id: "r2" }] } as unknown as Readings;
  expect(readingName(bends, "/rows/r2/plane")).toBe("plane of bend 2");
  expect(readingName(bends, "/last")).toBe("last leg, to end B");
  expect(readingName(bends, "/rows/r9/length")).toBeNull();
  const corners = { kind: "corners", rows: [{ id: "a" }, { id: "b" }, { id: "c" }] } as unknown as Readings;
  expect([0, 1, 2].map((k) => readingName(corners, `/rows/${"abc"[k]}/x`))).toEqual([
    "x of end A",
    "x of corner 1",
    "x of end B",
  ]);
});
