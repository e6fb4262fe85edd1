import type { Readings, TakenReading, Unit } from "../../api/types";
import { sayAngle, sayLength } from "../../format/units";

const FIELDS: Record<string, string> = {
  length: "leg to bend",
  to: "end mark of bend",
  angle: "angle of bend",
  plane: "plane of bend",
};

/** What a reading is called, by its pointer into the readings; null where its row is gone. */
export function readingName(readings: Readings, path: string): string | null {
  if (path === "/last") return "last leg, to end B";
  const [, , id, field = ""] = path.split("/");
  const row = readings.rows.findIndex((one) => one.id === id);
  if (row < 0) return null;
  if (readings.kind === "bends") return `${FIELDS[field] ?? field} ${row + 1}`;
  const last = readings.rows.length - 1;
  return `${field} of ${row === 0 ? "end A" : row === last ? "end B" : `corner ${row}`}`;
}

const say = (value: number, taken: TakenReading, unit: Unit) =>
  taken.kind === "length" ? sayLength(value, unit) : sayAngle(value);

/** How a reading was taken, where that is said otherwise than it was read; blank where it is not. */
export function saidTaken(taken: TakenReading | undefined, unit: Unit): string {
  if (!taken) return "";
  if (taken.kind === "plane") {
    const by = taken.taken - taken.read;
    return sayAngle(Math.abs(by)) === sayAngle(0) ? "" : `taken ${by > 0 ? "+" : "−"}${sayAngle(Math.abs(by))}`;
  }
  const said = say(taken.taken, taken, unit);
  return said === say(taken.read, taken, unit) ? "" : `taken ${said}`;
}

/** What 95 of 100 are within. */
export const saidDoubt = (taken: TakenReading, unit: Unit): string => `± ${say(taken.doubt, taken, unit)}`;
