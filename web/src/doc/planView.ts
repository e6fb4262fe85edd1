import type { Part, Plan } from "../api/types";

export interface Seen {
  /** The plan of the document as typed, null until the first answer. */
  plan: Plan | null;
  /** The part to work by: the present one, or the last one that could be computed. */
  part: Part | null;
  /** The part is from before a reading that cannot be read. */
  old: boolean;
  /** What to draw: the part, or as much of it as has been read. */
  drawn: Part | null;
  /** The drawing ends where the readings do; its end B is open. */
  growing: boolean;
  message: string;
}

export const NOTHING_SEEN: Seen = { plan: null, part: null, old: false, drawn: null, growing: false, message: "" };

/** What is seen after a new plan. A line that grows is drawn as far as it goes; one that was whole and has a reading in
 * the middle that cannot be read stays as it was, since less of it would look like a loss. */
export function seenAfter(was: Seen, plan: Plan): Seen {
  const part = plan.part ?? was.part;
  const soFar = plan.part ? null : plan.so_far;
  const growing = soFar !== null && soFar.bends.length >= (was.part?.bends.length ?? 0);
  return { plan, part, old: !plan.part && part !== null, drawn: growing ? soFar : part, growing, message: "" };
}

/** What is seen when a question went unanswered. */
export const seenWithout = (was: Seen, message: string): Seen => ({ ...was, old: was.part !== null, message });
