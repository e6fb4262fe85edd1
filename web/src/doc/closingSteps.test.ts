import { expect, test } from "vitest";
import type { Closing, Line, Step } from "../api/types";
import { shownDone, togetherWith } from "./closingSteps";

const step = (id: string, more: Partial<Step> = {}) =>
  ({ id, kind: "hand", does: "starts", joint: "", run: "", safety: false, ...more }) as Step;
const closing = (steps: Step[], more: Partial<Closing> = {}) =>
  ({ steps, standing: [], done: [], ...more }) as unknown as Closing;
const line = (done: string[], fills: string[] = []) =>
  ({
    proving: { done: done.map((one) => ({ step: one, at: "", by: "" })), fills: fills.map((run) => ({ step: run })) },
  }) as unknown as Line;
const NONE: ReadonlySet<string> = new Set();

test("steps of a kind are done together, but not those that must be seen by themselves", () => {
  const steps = [
    step("a", { joint: "s1-A" }),
    step("b", { joint: "s1-B" }),
    step("binds", { joint: "s2-A" }),
    step("safety", { safety: true }),
    step("looks", { does: "looks" }),
    step("other", { kind: "tight" }),
  ];
  const told = closing(steps, {
    standing: [{ joint: "s2-A", binds: "It stopped after 2 turns" }] as Closing["standing"],
  });
  expect(togetherWith(told, steps[0] as Step, NONE)).toEqual(["a", "b"]);
  expect(togetherWith(told, steps[0] as Step, new Set(["a"]))).toEqual([]);
  expect(togetherWith(told, steps[1] as Step, new Set(["a"]))).toEqual(["b"]);
  expect(togetherWith(told, steps[3] as Step, NONE)).toEqual([]);
});

test("what asks for figures, or is done with a joint open, is done by itself", () => {
  const steps = (["open", "fill", "hold", "works"] as const).map((kind) => step(kind, { kind, does: "" }));
  for (const one of steps) expect(togetherWith(closing([...steps, { ...one, id: "more" }]), one, NONE)).toEqual([]);
});

test("a tick counts at once; what is logged or looked at counts as the server says", () => {
  const steps = [step("a"), step("log", { kind: "fill", does: "", run: "pull" }), step("looks", { does: "looks" })];
  expect([...shownDone(line(["a"]), closing(steps))]).toEqual(["a"]);
  expect([...shownDone(line([]), closing(steps, { done: ["a", "log", "looks"] }))]).toEqual(["looks"]);
  expect([...shownDone(line([], ["pull"]), closing(steps, { done: ["log", "looks"] }))]).toEqual(["log", "looks"]);
});
