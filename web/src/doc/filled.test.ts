import { expect, test } from "vitest";
import type { Line, Plan } from "../api/types";
import { withoutFilled } from "./filled";

const lineWith = (angle: string) =>
  ({ spans: [{ id: "s1", readings: { rows: [{ id: "r1", angle: { text: angle } }] } }] }) as unknown as Line;

const planOf = (...paths: string[]) =>
  ({ problems: paths.map((path) => ({ path, message: "is not an angle" })) }) as unknown as Plan;

const ANGLE = "/spans/s1/readings/rows/r1/angle";

test("a field that has just been filled is not called blank until the answer comes", () => {
  const blank = lineWith("");
  expect(withoutFilled(planOf(ANGLE), blank, lineWith("9"))?.problems).toEqual([]);
  expect(withoutFilled(planOf(ANGLE), blank, blank)?.problems).toHaveLength(1);
});

test("what was wrong and is still being typed stays said", () => {
  expect(withoutFilled(planOf(ANGLE), lineWith("9x"), lineWith("9xy"))?.problems).toHaveLength(1);
  expect(withoutFilled(planOf("/spans/gone/angle"), lineWith(""), lineWith("9"))?.problems).toHaveLength(1);
});
