import { expect, test } from "vitest";
import { sayAngle, sayLength } from "./units";

// the same figures stand in tests/core/test_units.py: the sheet and the screen say one thing
test.each([
  [12.25, "12.3"],
  [12.35, "12.4"],
  [-12.25, "-12.3"],
  [-0.04, "0"],
])("%d is said as %s", (value, text) => {
  expect(sayLength(value, "mm")).toBe(`${text} mm`);
  expect(sayAngle(value)).toBe(`${text.replace("-", "−")}°`);
});
