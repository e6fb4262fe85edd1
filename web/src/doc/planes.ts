import type { Line, Plane } from "../api/types";
import { editBends, isTube } from "./rows";

export type PlaneSchool = Plane["by"];

const BARE = /^\s*\d{1,2}(?:\.\d*)?\s*$/;

/** A bare number that is a clock time in one shop and degrees in another. */
const bare = (plane: Plane): boolean => plane.exact_deg == null && BARE.test(plane.text) && Number(plane.text) <= 12;

/** What was typed is a time on the clock rather than a turn. */
export function isClock(plane: Plane): boolean {
  return /[:h]|clock/i.test(plane.text) || (bare(plane) && plane.by === "clock");
}

/** The shop has said how it reads planes: bare numbers that were waiting for that mean it, those that were
 * read the other way are written out. */
export function withSchool(line: Line, school: PlaneSchool): Line {
  return line.spans.filter(isTube).reduce(
    (made, span) =>
      editBends(
        made,
        (readings) => ({
          ...readings,
          rows: readings.rows.map((row) => ({ ...row, plane: told(row.plane, school) })),
        }),
        span.id,
      ),
    line,
  );
}

function told(plane: Plane, school: PlaneSchool): Plane {
  if (!bare(plane) || plane.by === school) return plane;
  if (plane.by === "") return { ...plane, by: school };
  return { ...plane, text: plane.by === "clock" ? `${Number(plane.text)}:00` : `${plane.text.trim()}°` };
}
