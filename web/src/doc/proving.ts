import type { Done, FillRow, Hold, JointEvent, JointWork, Line, LineJoint, Proving } from "../api/types";

/** The line with its log of closing and proving changed. */
export function withProving(line: Line, change: (was: Proving) => Partial<Proving>): Line {
  return { ...line, proving: { ...line.proving, ...change(line.proving) } };
}

/** Steps ticked with time and person, or not done after all. */
export function ticked(line: Line, steps: readonly string[], on: { at: string; by: string } | null): Line {
  return withProving(line, ({ done }) => ({
    done: [...done.filter((one) => !steps.includes(one.step)), ...(on ? steps.map((step) => ({ step, ...on })) : [])],
  }));
}

/** The tick of a step, where it has one. */
export const tickOf = (line: Line, step: string): Done | undefined =>
  line.proving.done.find((one) => one.step === step);

const isAt = (work: JointWork, joint: LineJoint) =>
  work.span === joint.span && work.end === joint.end && work.meets === joint.meets;

/** What was noted of a joint; blank where nothing was. */
export function workAt(line: Line, joint: LineJoint): JointWork {
  const blank: JointWork = {
    span: joint.span,
    end: joint.end,
    meets: joint.meets,
    turns: "",
    applied: "",
    tight: "",
    aim: "",
    by: "",
    events: [],
  };
  return line.proving.joints.find((work) => isAt(work, joint)) ?? blank;
}

/** The line with what was noted of a joint changed. */
export function withJoint(line: Line, joint: LineJoint, change: Partial<JointWork>): Line {
  const work = { ...workAt(line, joint), ...change };
  return withProving(line, ({ joints }) => ({
    joints: joints.some((one) => isAt(one, joint))
      ? joints.map((one) => (isAt(one, joint) ? work : one))
      : // what was noted of the same end when it met something else makes room
        [...joints.filter((one) => one.span !== joint.span || one.end !== joint.end), work],
  }));
}

/** One more look at each of some joints, or one thing done to them; each is noted by itself. */
export function seen(
  line: Line,
  joints: readonly LineJoint[],
  what: JointEvent["what"],
  on: { at: string; by: string },
): Line {
  return joints.reduce((was, joint) => {
    const { events } = workAt(was, joint);
    return withJoint(was, joint, { events: [...events, { id: freeId(events, "e"), what, note: "", ...on }] });
  }, line);
}

/** The last look taken back. */
export function unseen(line: Line, joint: LineJoint): Line {
  return withJoint(line, joint, { events: workAt(line, joint).events.slice(0, -1) });
}

/** The next free id of a list, as the core gives them. */
export function freeId(list: readonly { id: string }[], letter: string): string {
  let number = 1;
  while (list.some((one) => one.id === `${letter}${number}`)) number += 1;
  return `${letter}${number}`;
}

/** Items of a list with one changed, by its id. */
export function changed<T extends { id: string }>(list: readonly T[], id: string, change: Partial<T>): T[] {
  return list.map((one) => (one.id === id ? { ...one, ...change } : one));
}

/** A new turn of a guided run. */
export function blankFill(line: Line, step: string, at: string, place = ""): FillRow {
  const blank = { place, into: "", out: "", level: "", air: "" as const, seconds: "", value: "", by: "", note: "" };
  return { ...blank, id: freeId(line.proving.fills, "f"), step, at };
}

/** A new hold test; a vacuum is read below the air, everything else above it. */
export function blankHold(line: Line, kind: Hold["kind"], at: string, run = ""): Hold {
  return {
    id: freeId(line.proving.holds, "h"),
    kind,
    run,
    rows: [],
    reads: kind === "vacuum" ? "below the air" : "above the air",
    volume: "",
    threshold: "",
    minutes: "",
    air: "",
    instead: "",
    at,
    by: "",
    note: "",
  };
}

/** Now, as the shop's clock has it, to the minute or the second: 2026-11-27T14:32. */
export function localTime(now: Date, seconds = false): string {
  const two = (n: number) => String(n).padStart(2, "0");
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  const time = `${two(now.getHours())}:${two(now.getMinutes())}`;
  return `${day}T${time}${seconds ? `:${two(now.getSeconds())}` : ""}`;
}

/** What is left of a wait: 7:05, or nothing when it is over. */
export function left(until: string, now: Date): string {
  const seconds = Math.ceil((new Date(until).getTime() - now.getTime()) / 1000);
  if (!Number.isFinite(seconds) || seconds <= 0) return "";
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
