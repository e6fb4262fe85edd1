import { expect, test } from "vitest";
import { rulerSteps, sayAngle, sayClock, sayFigure, sayLength, sayPressure, sayTorque, sayTurn } from "./units";

// the same figures stand in tests/core/test_units.py: the sheet and the screen say one thing
test.each([
  [12.25, "12.3"],
  [12.35, "12.4"],
  [-12.25, "-12.3"],
  [-0.04, "0"],
])("%d is said as %s", (value, text) => {
  expect(sayLength(value, "mm")).toBe(`${text} mm`);
  expect(sayFigure(value, "mm")).toBe(text);
  expect(sayAngle(value)).toBe(`${text.replace("-", "−")}°`);
});

// a ruler in 32nds, its fractions as short as they go
test.each([
  [0, "0"],
  [25.4, "1"],
  [12.7, "1/2"],
  [25.4 / 32, "1/32"],
  [(25.4 * 3) / 16, "3/16"],
  [25.4 * 1.625, "1 5/8"],
  [-25.4 * 2.25, "−2 1/4"],
  [-0.1, "0"],
  [0.39, "0"],
  [0.4, "1/32"],
  [25.3, "1"],
])("%d mm is %s inches", (mm, text) => {
  expect(sayFigure(mm, "in")).toBe(text);
  expect(sayLength(mm, "in")).toBe(`${text}"`);
});

test("a turn has its sign, none where nothing turns", () => {
  expect([sayTurn(90), sayTurn(-45.5), sayTurn(0)]).toEqual(["+90°", "−45.5°", "0°"]);
});

// half a degree to the minute, noon on top
test.each([
  [0, "12:00"],
  [90, "3:00"],
  [-90, "9:00"],
  [359.9, "12:00"],
  [45, "1:30"],
  [357, "11:54"],
  [0.5, "12:01"],
  [390, "1:00"],
])("%d° is %s on the clock", (degrees, text) => {
  expect(sayClock(degrees)).toBe(text);
});

test("a ruler has at most twenty figures, and ticks between them", () => {
  expect(rulerSteps(90, "mm")).toEqual({ label: 5, tick: 1 });
  expect(rulerSteps(100, "mm").label).toBe(5);
  expect(rulerSteps(101, "mm").label).toBe(10);
  expect(rulerSteps(1e6, "mm").label).toBe(10000);
  expect(rulerSteps(25.4 * 5, "in")).toEqual({ label: 25.4 / 4, tick: 25.4 / 16 });
  expect(rulerSteps(25.4 * 30, "in").label).toBeCloseTo(25.4 * 2);
  expect(rulerSteps(25.4 * 1e6, "in").label).toBeCloseTo(25.4 * 480);
});

test("pressures have three figures, in the person's own system", () => {
  expect([sayPressure(1034.214, "in"), sayPressure(1034.214, "mm")]).toEqual(["150 psi", "10.3 bar"]);
  expect([sayPressure(100, "mm"), sayPressure(1000, "mm"), sayPressure(10_000, "mm")]).toEqual([
    "1.00 bar",
    "10.0 bar",
    "100 bar",
  ]);
  expect(sayPressure(2_000_000, "mm")).toBe("20,000 bar");
});

test("a torque is a range, or one figure where both ends come to the same", () => {
  expect([sayTorque(12, 16.4, "mm"), sayTorque(12, 12.3, "mm")]).toEqual(["12 to 16 N·m", "12 N·m"]);
  expect(sayTorque(13.55818, 20.33727, "in")).toBe("10 to 15 lbf·ft");
});
