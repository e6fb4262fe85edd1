import type { TakenReading, Unit } from "../../api/types";
import { sayAngle, sayLength } from "../../format/units";

const say = (value: number, taken: TakenReading, unit: Unit) =>
  taken.kind === "length" ? sayLength(value, unit) : sayAngle(value);

/** How a reading was taken, where that is said otherwise than it was read; blank where it is not. */
export function saidTaken(taken: TakenReading | undefined, unit: Unit): string {
  if (!taken) return "";
  if (taken.kind === "plane") {
    const by = taken.taken - taken.read;
    return sayAngle(Math.abs(by)) === sayAngle(0) ? "" : `${by > 0 ? "+" : "−"}${sayAngle(Math.abs(by))}`;
  }
  const said = say(taken.taken, taken, unit);
  return said === say(taken.read, taken, unit) ? "" : said;
}

/** What 95 of 100 are within. */
export const saidDoubt = (taken: TakenReading, unit: Unit): string => `± ${say(taken.doubt, taken, unit)}`;
