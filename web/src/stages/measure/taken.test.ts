import { expect, test } from "vitest";
import type { TakenReading } from "../../api/types";
import { saidTaken } from "./taken";

const one = (kind: TakenReading["kind"], read: number, taken: number): TakenReading => ({
  path: "",
  name: "",
  kind,
  read,
  taken,
  doubt: 0.5,
  trust: "",
});

test("what is taken is said where it is not what was read", () => {
  expect(saidTaken(one("angle", 90, 89.4), "mm")).toBe("89.4°");
  expect(saidTaken(one("length", 100, 100.04), "mm")).toBe("");
  expect(saidTaken(one("plane", 90, 89.4), "in")).toBe("−0.6°");
  expect(saidTaken(one("length", 25.4, 26.2), "in")).toBe('1 1/32"');
  expect(saidTaken(undefined, "mm")).toBe("");
});
