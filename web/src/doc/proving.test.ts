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
  ticked,
  unseen,
  withJoint,
  workAt,
} from "./proving";

const line = { proving: { done: [], joints: [], fills: [], holds: [] } } as unknown as Line;
const joint = { id: "s1-B", span: "s1", end: "B", meets: "" } as LineJoint;

test("a step is ticked once, and not done after all", () => {
  const twice = ticked(ticked(line, "blow", true), "blow", true);
  expect(twice.proving.done).toEqual(["blow"]);
  expect(ticked(twice, "blow", false).proving.done).toEqual([]);
  const two = ticked(twice, "dry", true);
  expect(two.proving.done).toEqual(["blow", "dry"]);
  expect(ticked(two, "blow", true).proving.done).toEqual(["dry", "blow"]);
  expect(ticked(two, "blow", false).proving.done).toEqual(["dry"]);
});

test("looks at a joint follow one another, and the last is taken back", () => {
  const wet = seen(seen(line, joint, "dried", "2026-11-27T10:00"), joint, "wet", "2026-11-27T10:10");
  expect(workAt(wet, joint).events.map((event) => [event.id, event.what])).toEqual([
    ["e1", "dried"],
    ["e2", "wet"],
  ]);
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
