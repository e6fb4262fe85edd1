import { afterEach, expect, test, vi } from "vitest";
import type { MakingState } from "../api/types";
import { minutesOf, running, toggled } from "./spells";

const state = (...spells: [string, string][]) =>
  ({ spells: spells.map(([start, stop]) => ({ start, stop })) }) as unknown as MakingState;
const NINE = Date.parse("2026-01-14T09:00:00Z");

afterEach(() => void vi.useRealTimers());

test("worked minutes are those of all spells, one that runs counted until now", () => {
  expect(minutesOf(state(), NINE)).toBe(0);
  const over = state(["2026-01-14T08:00:00Z", "2026-01-14T08:25:00Z"], ["2026-01-14T08:50:00Z", ""]);
  expect(minutesOf(over, NINE)).toBe(35);
  // a clock that was put back takes nothing away
  expect(minutesOf(state(["2026-01-14T09:30:00Z", ""], ["2026-01-14T08:00:00Z", "2026-01-14T08:10:00Z"]), NINE)).toBe(
    10,
  );
});

test("the time is stopped where it runs and started where it does not", () => {
  vi.useFakeTimers({ now: NINE });
  const begun = toggled(state(["a", "b"]));
  expect(begun.spells).toEqual([
    { start: "a", stop: "b" },
    { start: "2026-01-14T09:00:00.000Z", stop: "" },
  ]);
  expect([running(state()), running(state(["a", "b"])), running(begun)]).toEqual([false, false, true]);
  vi.setSystemTime(NINE + 60_000);
  const ended = toggled(begun);
  expect(ended.spells).toEqual([
    { start: "a", stop: "b" },
    { start: "2026-01-14T09:00:00.000Z", stop: "2026-01-14T09:01:00.000Z" },
  ]);
  expect(running(ended)).toBe(false);
});
