import type { Closing, Line, Step } from "../api/types";

/** Steps that are done: those ticked in the line as typed, at once, and those that their log or the server says. */
export function shownDone(line: Line, closing: Closing): ReadonlySet<string> {
  const ticks = new Set(line.proving.done.map((one) => one.step));
  const logged = new Set(line.proving.fills.map((row) => row.step));
  const byTick = (step: Step) => !step.does.match(/looks|holds/) && step.kind !== "works" && !logged.has(step.run);
  return new Set(
    closing.steps
      .filter((step) => ticks.has(step.id) || (!byTick(step) && closing.done.includes(step.id)))
      .map((step) => step.id),
  );
}

const ALONE: readonly Step["kind"][] = ["open", "fill", "hold", "works"];

/** Ids of the steps that one press may tick along with a step: of its kind and not done, no step that must be seen by
 * itself (a safety step, one with figures), and no joint whose nut binds. */
export function togetherWith(closing: Closing, with_: Step, done: ReadonlySet<string>): string[] {
  const binds = new Set(closing.standing.filter((one) => one.binds).map((one) => one.joint));
  const fits = (step: Step) =>
    step.kind === with_.kind &&
    !ALONE.includes(step.kind) &&
    !step.safety &&
    step.does !== "looks" &&
    !binds.has(step.joint) &&
    !done.has(step.id);
  return fits(with_) ? closing.steps.filter(fits).map((step) => step.id) : [];
}
