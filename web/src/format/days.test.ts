import { expect, test } from "vitest";
import { sayDay, sayDayOf } from "./days";

test("a day is said by its number and its month, a year only where it is asked for", () => {
  expect(sayDay("2026-12-04")).toBe("4 Dec");
  expect(sayDayOf("2026-12-04T12:00:00")).toBe("4 Dec");
  expect(sayDayOf("2026-12-04T12:00:00", true)).toBe("4 Dec 2026");
});
