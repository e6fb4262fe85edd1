import { expect, test } from "vitest";
import type { Part, Plan } from "../api/types";
import { NOTHING_SEEN, seenAfter, seenWithout } from "./planView";

const part = (bends: number) => ({ bends: Array.from({ length: bends }, () => ({})) }) as unknown as Part;
const plan = (whole: Part | null, soFar: Part | null) =>
  ({ main: "s1", pieces: [{ span: "s1", part: whole, so_far: soFar }] }) as unknown as Plan;

test("a new line is drawn as far as it has been read", () => {
  const seen = seenAfter(NOTHING_SEEN, plan(null, part(1)));
  expect([seen.drawn?.bends.length, seen.growing, seen.old, seen.part]).toEqual([1, true, false, null]);
});

test("a whole line is drawn whole", () => {
  const seen = seenAfter(NOTHING_SEEN, plan(part(2), null));
  expect([seen.drawn, seen.growing, seen.old]).toEqual([seen.part, false, false]);
});

test("a row added to a whole line grows it", () => {
  const seen = seenAfter(seenAfter(NOTHING_SEEN, plan(part(2), null)), plan(null, part(2)));
  expect([seen.growing, seen.old, seen.drawn?.bends.length]).toEqual([true, true, 2]);
});

test("a slip in the middle of a whole line does not cut it short", () => {
  const seen = seenAfter(seenAfter(NOTHING_SEEN, plan(part(5), null)), plan(null, part(2)));
  expect([seen.growing, seen.old, seen.drawn?.bends.length]).toEqual([false, true, 5]);
});

test("nothing read and nothing before is nothing drawn", () => {
  const seen = seenAfter(NOTHING_SEEN, plan(null, null));
  expect([seen.drawn, seen.growing, seen.old]).toEqual([null, false, false]);
});

test("without an answer the last part stays, as old", () => {
  const seen = seenWithout(seenAfter(NOTHING_SEEN, plan(part(3), null)), "Bendrel does not answer.");
  expect([seen.drawn?.bends.length, seen.old, seen.message]).toEqual([3, true, "Bendrel does not answer."]);
});

test("another tube of the line has its own last part", () => {
  const two = (first: Part | null, second: Part | null) =>
    ({
      main: "s1",
      pieces: [
        { span: "s1", part: first, so_far: null },
        { span: "s2", part: second, so_far: null },
      ],
    }) as unknown as Plan;
  const [one, other] = [part(2), part(3)];
  const seen = seenAfter(NOTHING_SEEN, two(one, other));
  expect([seen.piece?.span, seen.part]).toEqual(["s1", one]);
  expect(seenAfter(seen, two(one, other), "s2").part).toBe(other);
  // the first tube's part is no last part of the second
  const unread = seenAfter(seen, two(one, null), "s2");
  expect([unread.part, unread.old, unread.drawn]).toEqual([null, false, null]);
});

test("what is drawn belongs to the plan that it was drawn from", () => {
  const first = plan(part(5), null);
  const whole = seenAfter(NOTHING_SEEN, first);
  const slipped = plan(null, part(2));
  expect(seenAfter(whole, slipped).drawnFrom).toBe(first);
  const grown = plan(null, part(5));
  expect(seenAfter(whole, grown).drawnFrom).toBe(grown);
  const again = plan(part(5), null);
  expect(seenAfter(seenAfter(whole, slipped), again)).toMatchObject({ drawnFrom: again, old: false });
});

test("a line without a tube is drawn as nothing, and is not old", () => {
  const none = { main: "", pieces: [] } as unknown as Plan;
  expect(seenAfter(NOTHING_SEEN, none)).toMatchObject({ piece: null, part: null, old: false, growing: false });
  const seen = seenAfter(seenAfter(NOTHING_SEEN, plan(part(3), null)), none);
  expect([seen.part, seen.old]).toEqual([null, false]);
  expect(seenWithout(NOTHING_SEEN, "away").old).toBe(false);
});
