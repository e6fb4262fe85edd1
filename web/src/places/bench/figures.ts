import type { Unit } from "../../api/types";
import { sayLength } from "../../format/units";

/** Beyond the angle by less than this, it is there. */
const THERE_DEG = 0.05;
/** A reading farther off is of something else. */
const FAR_DEG = 30;

/** How the tube is moved on to the next mark: away from the end in the clamp, or back towards it. */
export const feedWords = (feedMm: number, unit: Unit): string =>
  `${feedMm < 0 ? "draw the tube back by" : "push the tube on by"} ${sayLength(Math.abs(feedMm), unit)}`;

export interface Stop {
  /** Where to stop first on the dial, and what the tube then shows at least when let go. */
  first_deg: number;
  shows_deg: number;
  /** Where to go on to on the dial; null until it has been read. */
  on_deg: number | null;
  /** It is there already. */
  there: boolean;
}

/** Stopping `by` short of what the dial is to show, letting go and reading: what the tube springs back, it springs back
 * again, so that the rest is what it still lacks. */
export function stopShort(dial: number, angle: number, by: number, reads: string): Stop {
  const [first_deg, shows_deg] = [Math.max(0, dial - by), Math.max(0, angle - by)];
  const value = Number(reads.replace("°", "").trim());
  const known = reads.trim() !== "" && Number.isFinite(value) && Math.abs(value - angle) < FAR_DEG;
  const there = known && value > angle + THERE_DEG;
  return { first_deg, shows_deg, on_deg: known && !there ? first_deg + angle - value : null, there };
}
