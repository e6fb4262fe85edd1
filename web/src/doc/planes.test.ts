import { expect, it } from "vitest";
import type { Line, Plane, RigidSpan } from "../api/types";
import { isClock, withSchool } from "./planes";
import type { PlaneSchool } from "./planes";

const plane = (text: string, by: PlaneSchool = "", exact_deg: number | null = null): Plane => ({ text, by, exact_deg });
const line = (...planes: Plane[]) =>
  ({
    spans: [
      {
        id: "s1",
        kind: "rigid",
        state: "to make",
        readings: { kind: "bends", rows: planes.map((item) => ({ plane: item })) },
      },
    ],
  }) as unknown as Line;
const told = (made: Line) =>
  (made.spans[0] as RigidSpan).readings.rows.map((row) => ("plane" in row ? [row.plane.text, row.plane.by] : []));

it("gives the answer to the numbers that were waiting for it, and spells out the others", () => {
  const made = line(
    plane("3"),
    plane("4", "clock"),
    plane("5", "degrees"),
    plane("90"),
    plane("6:30"),
    plane("7", "", 45),
  );
  expect(told(withSchool(made, "clock"))).toEqual([
    ["3", "clock"],
    ["4", "clock"],
    ["5°", "degrees"],
    ["90", ""],
    ["6:30", ""],
    ["7", ""],
  ]);
  expect(told(withSchool(made, "degrees"))).toEqual([
    ["3", "degrees"],
    ["4:00", "clock"],
    ["5", "degrees"],
    ["90", ""],
    ["6:30", ""],
    ["7", ""],
  ]);
});

it("knows a clock time from a turn", () => {
  expect([plane("3:00"), plane("3h"), plane("3", "clock"), plane("3 o'clock")].every(isClock)).toBe(true);
  expect([plane("3", "degrees"), plane("90", "clock"), plane("+3", "clock"), plane("-45")].some(isClock)).toBe(false);
});
