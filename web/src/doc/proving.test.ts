import { expect, test } from "vitest";
import type { Line, LineJoint } from "../api/types";
import { blankFill, changed, freeId, left, localTime, seen, ticked, unseen, withJoint, workAt } from "./proving";

const line = { proving: { done: [], joints: [], fills: [], holds: [] } } as unknown as Line;
const joint = { id: "s1-B", span: "s1", end: "B", meets: "" } as LineJoint;

test("a step is ticked once, and not done after all", () => {
  const twice = ticked(ticked(line, "blow", true), "blow", true);
  expect(twice.proving.done).toEqual(["blow"]);
  expect(ticked(twice, "blow", false).proving.done).toEqual([]);
});

test("looks at a joint follow one another, and the last is taken back", () => {
  const wet = seen(seen(line, joint, "dried", "2026-11-27T10:00"), joint, "wet", "2026-11-27T10:10");
  expect(workAt(wet, joint).events.map((event) => [event.id, event.what])).toEqual([
    ["e1", "dried"],
    ["e2", "wet"],
  ]);
  expect(workAt(unseen(wet, joint), joint).events).toHaveLength(1);
});

test("a joint that meets something else is another one, and takes the old one's place", () => {
  const noted = withJoint(line, joint, { by: "Ada" });
  const other = { ...joint, meets: "h1" };
  expect(workAt(noted, other).by).toBe("");
  expect(withJoint(noted, other, { by: "Ben" }).proving.joints.map((work) => work.by)).toEqual(["Ben"]);
});

test("ids are the next free ones", () => {
  expect(freeId([{ id: "f1" }, { id: "f3" }], "f")).toBe("f2");
  expect(blankFill(line, "wheel", "2026-11-27T10:00").id).toBe("f1");
  expect(changed([{ id: "a", n: 1 }], "a", { n: 2 })).toEqual([{ id: "a", n: 2 }]);
});

test("what is left of a wait is told, and nothing once it is over", () => {
  const now = new Date("2026-11-27T10:00:00");
  expect(left("2026-11-27T10:07:05", now)).toBe("7:05");
  expect(left("2026-11-27T09:59:00", now)).toBe("");
  expect(left("", now)).toBe("");
  expect(localTime(now)).toBe("2026-11-27T10:00");
  expect(localTime(now, true)).toBe("2026-11-27T10:00:00");
});
