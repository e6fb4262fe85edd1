import type { Part, Plan, PlannedPiece } from "../api/types";

export interface Seen {
  /** The plan of the document as typed, null until the first answer. */
  plan: Plan | null;
  /** What the plan says of the tube that is worked on. */
  piece: PlannedPiece | null;
  /** The part to work by: the present one, or the last one that could be computed. */
  part: Part | null;
  /** The part is from before a reading that cannot be read. */
  old: boolean;
  /** What to draw: the part, or as much of it as has been read. */
  drawn: Part | null;
  /** The plan that what is drawn belongs to. */
  drawnFrom: Plan | null;
  /** The drawing ends where the readings do; its end B is open. */
  growing: boolean;
  message: string;
}

export const NOTHING_SEEN: Seen = {
  plan: null,
  piece: null,
  part: null,
  old: false,
  drawn: null,
  drawnFrom: null,
  growing: false,
  message: "",
};

/** What is seen after a new plan. A line that grows is drawn as far as it goes; one that was whole and has a reading in
 * the middle that cannot be read stays as it was, since less of it would look like a loss. */
export function seenAfter(was: Seen, plan: Plan, tube = ""): Seen {
  const piece = plan.pieces.find((one) => one.span === (tube || plan.main)) ?? null;
  const last = was.piece?.span === piece?.span ? was.part : null;
  const part = piece?.part ?? last;
  const soFar = piece?.part ? null : (piece?.so_far ?? null);
  const growing = soFar !== null && soFar.bends.length >= (last?.bends.length ?? 0);
  const old = piece !== null && !piece.part && part !== null;
  const drawnFrom = old && !growing ? was.drawnFrom : plan;
  return { plan, piece, part, old, drawn: growing ? soFar : part, drawnFrom, growing, message: "" };
}

/** What is seen when a question went unanswered. */
export const seenWithout = (was: Seen, message: string): Seen => ({ ...was, old: was.part !== null, message });
