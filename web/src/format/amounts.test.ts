import { expect, test } from "vitest";
import { readMoney, readTime, sayMetres, sayMoney, sayTime, sayVolume } from "./amounts";

test.each([
  ["", 0],
  ["45", 45],
  ["45 min", 45],
  ["1:30", 90],
  ["0:59", 59],
  ["1 h", 60],
  ["1.5h", 90],
  ["100000", 100_000],
])("a time of “%s” is %s minutes", (text, minutes) => expect(readTime(text)).toBe(minutes));

test.each(["1:60", "1:3", "an hour", "-5", "1,5 h", "100001", "1h30"])("“%s” is no time", (text) =>
  expect(readTime(text)).toBeNull(),
);

test.each([
  ["", 0],
  ["12", 1200],
  ["12.5", 1250],
  ["12.50", 1250],
  ["0.29", 29],
  ["1000000", 100_000_000],
])("“%s” is %s hundredths", (text, cents) => expect(readMoney(text)).toBe(cents));

test.each(["12.505", "-1", "12,50", "1000000.01", "twelve", "1e3"])("“%s” is no amount", (text) =>
  expect(readMoney(text)).toBeNull(),
);

test.each([
  [0, "0 min"],
  [59, "59 min"],
  [60, "1 h"],
  [95, "1 h 35 min"],
  [120, "2 h"],
])("%s minutes are said as “%s”", (minutes, said) => expect(sayTime(minutes)).toBe(said));

test("money has two places, metres at most two, volumes go over to litres at a thousand", () => {
  expect(sayMoney(1250)).toBe("12.50");
  expect([sayMetres(6150), sayMetres(1004)]).toEqual(["6.15 m", "1 m"]);
  expect([sayVolume(999), sayVolume(1000), sayVolume(-1500)]).toEqual(["999 ml", "1.00 L", "-1.50 L"]);
});
