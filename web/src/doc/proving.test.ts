import { expect, test } from "vitest";
import type { Line, LineJoint } from "../api/types";
import {
  blankFill,
  blankHold,
  changed,
  freeId,
  left,
  localTime,
  seen,
  tickOf,
  ticked,
  unseen,
  withJoint,
  workAt,
} from "./proving";

const line = { proving: { done: [], joints: [], fills: [], holds: [] } } as unknown as Line;
const joint = { id: "s1-B", span: "s1", end: "B", meets: "" } as LineJoint;

const at = (time: string, by = "Ada") => ({ at: `2026-11-27T${time}`, by });

test("a step is ticked once, with time and person, and not done after all", () => {
  const once = ticked(line, ["blow"], at("10:00"));
  expect(once.proving.done).toEqual([{ step: "blow", at: "2026-11-27T10:00", by: "Ada" }]);
  const twice = ticked(once, ["blow"], at("10:05", "Ben"));
  expect(twice.proving.done.map((one) => one.by)).toEqual(["Ben"]);
  expect(tickOf(twice, "blow")?.at).toBe("2026-11-27T10:05");
  expect(tickOf(twice, "dry")).toBeUndefined();
  expect(ticked(twice, ["blow"], null).proving.done).toEqual([]);
  const three = ticked(twice, ["dry", "cap"], at("10:10"));
  expect(three.proving.done.map((one) => one.step)).toEqual(["blow", "dry", "cap"]);
  expect(ticked(three, ["blow", "cap"], null).proving.done.map((one) => one.step)).toEqual(["dry"]);
});

test("looks at joints follow one another, each joint by itself, and the last is taken back", () => {
  const other = { ...joint, span: "s2" };
  const dried = seen(line, [joint, other], "dried", at("10:00"));
  const wet = seen(dried, [joint], "wet", at("10:10", "Ben"));
  expect(workAt(wet, joint).events.map((event) => [event.id, event.what, event.by])).toEqual([
    ["e1", "dried", "Ada"],
    ["e2", "wet", "Ben"],
  ]);
  expect(workAt(wet, other).events.map((event) => event.what)).toEqual(["dried"]);
  expect(workAt(unseen(wet, joint), joint).events.map((event) => event.what)).toEqual(["dried"]);
});

test("a joint that meets something else is another one, and takes the old one's place", () => {
  const noted = withJoint(line, joint, { by: "Ada" });
  const other = { ...joint, meets: "h1" };
  expect(workAt(noted, other).by).toBe("");
  expect(withJoint(noted, other, { by: "Ben" }).proving.joints.map((work) => work.by)).toEqual(["Ben"]);
});

test("every joint has its own notes", () => {
  const ends = [
    { ...joint, end: "A" },
    { ...joint, span: "s2" },
    { ...joint, span: "s2", end: "A" },
  ] as LineJoint[];
  const noted = ends.reduce(
    (was, one, k) => withJoint(was, one, { by: String(k) }),
    withJoint(line, joint, { by: "B" }),
  );
  expect([joint, ...ends].map((one) => workAt(noted, one).by)).toEqual(["B", "0", "1", "2"]);
  const changed = withJoint(noted, ends[1] as LineJoint, { by: "new" });
  expect([joint, ...ends].map((one) => workAt(changed, one).by)).toEqual(["B", "0", "new", "2"]);
  // what meets something else takes the place of that end alone
  const met = withJoint(noted, { ...joint, meets: "h1" }, { by: "hose" });
  expect(met.proving.joints.map((work) => work.by).sort()).toEqual(["0", "1", "2", "hose"]);
});

test("a new hold reads a vacuum below the air, and a pressure above it", () => {
  expect(blankHold(line, "vacuum", "2026-11-27T10:00")).toMatchObject({ id: "h1", reads: "below the air", rows: [] });
  expect(blankHold(line, "liquid", "2026-11-27T10:00", "r1")).toMatchObject({ reads: "above the air", run: "r1" });
});

test("ids are the next free ones", () => {
  expect(freeId([{ id: "f1" }, { id: "f3" }], "f")).toBe("f2");
  expect(blankFill(line, "wheel", "2026-11-27T10:00").id).toBe("f1");
  const list = [
    { id: "a", n: 1 },
    { id: "b", n: 1 },
  ];
  expect(changed(list, "a", { n: 2 }).map(({ n }) => n)).toEqual([2, 1]);
});

test("what is left of a wait is told, and nothing once it is over", () => {
  const now = new Date("2026-11-27T10:00:00");
  expect(left("2026-11-27T10:07:05", now)).toBe("7:05");
  expect(left("2026-11-27T09:59:00", now)).toBe("");
  expect(left("", now)).toBe("");
  expect(left("2026-11-27T10:07:45", now)).toBe("7:45");
  expect(left("2026-11-27T10:00:00", now)).toBe("");
  expect(localTime(now)).toBe("2026-11-27T10:00");
  expect(localTime(now, true)).toBe("2026-11-27T10:00:00");
});
