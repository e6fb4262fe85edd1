import type { Part, Unit } from "../../api/types";
import { sayFigure } from "../../format/units";

/** What is cut off at the last, or taken up by the flare: where it lies in mm from end A, and what it is. */
export interface Spare {
  from_mm: number;
  to_mm: number;
  text: string;
}

/** The spare of a tube at the end that is reached last: B where it is held at A, and A where it is held at B. */
export function spareOf(part: Part, heldAtA: boolean, unit: Unit): Spare | null {
  const end = heldAtA ? part.end_b : part.end_a;
  const room = end.allowance_mm + end.leave_long_mm + part.spare_mm;
  if (room <= 0) return null;
  const [from_mm, to_mm] = heldAtA ? [part.developed_mm, part.developed_mm + room] : [-room, 0];
  const text =
    end.leave_long_mm > 0
      ? `long ${sayFigure(end.leave_long_mm + part.spare_mm, unit)}`
      : part.spare_mm > 0
        ? `spare ${sayFigure(part.spare_mm, unit)}`
        : "flare";
  return { from_mm, to_mm, text };
}
