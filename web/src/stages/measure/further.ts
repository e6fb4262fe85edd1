import type { BendOnSheet, Checks, CornerPlace, DrawnEnd, OnSheet, TapeAcross, ToTake, Unit } from "../../api/types";
import { freshId, typed } from "../../doc/rows";
import { blankLanding } from "../../workspace/fitting/offers";

export const blankTape = (start: string, end: string, unit: Unit): TapeAcross => ({
  id: freshId("t"),
  start,
  end,
  over: false,
  length: typed("", unit),
});

export const blankCorner = (row: string, unit: Unit): CornerPlace => ({
  id: freshId("c"),
  row,
  ahead: typed("", unit),
  up: typed("", unit),
  right: typed("", unit),
});

export const blankBend = (row: string): BendOnSheet => ({
  id: freshId("s"),
  row,
  height: "",
  beside: "",
  left: false,
});

export const blankSheet = (unit: Unit): OnSheet => ({ ...blankLanding(unit, "clock"), drawn: null, bends: [] });

const isBlank = (sheet: OnSheet) =>
  sheet.bends.length === 0 &&
  ![sheet.along, sheet.off, sheet.off_clock, sheet.tilt, sheet.tilt_clock].some((text) => text.trim());

/**
 * What is read of the old part on its sheet, with the sheet that it lay on: the one that was drawn as the first
 * figure was typed. Later readings move the line, not that sheet.
 */
export function sheetAsDrawn(sheet: OnSheet, change: Partial<OnSheet>, drawn: DrawnEnd | null, unit: Unit): OnSheet {
  const changed = { ...sheet, ...change };
  if (isBlank(changed)) return { ...blankSheet(unit), short: changed.short };
  const first = isBlank(sheet) ? { plane_by: "clock" as const, unit, drawn } : {};
  return { ...changed, ...first };
}

/** A part of the checks that stays folded until something is in it, by the place in the checks that it begins at. */
export type Fold = "ahead" | "across" | "corners" | "sheet";

/** Parts of the checks with something in them. */
export function filled(checks: Checks): ReadonlySet<Fold> {
  const found = new Set<Fold>();
  if ([checks.ahead, checks.up, checks.right].some((side) => side.text.trim())) found.add("ahead");
  if (checks.across.length > 0) found.add("across");
  if (checks.corners.length > 0) found.add("corners");
  if (!isBlank(checks.sheet)) found.add("sheet");
  return found;
}

/** Where a kind of further reading stands within the checks; of tapes and corners the list. */
export function checkAt(kind: ToTake["kind"], corners: boolean): string {
  return {
    wire: "wire",
    tape: "tape",
    "way A": "way_a",
    "way B": corners ? "way_b" : "port_b_angle",
    "place B": "ahead",
    sheet: "sheet",
    "bend on sheet": "sheet",
    across: "across",
    corner: "corners",
  }[kind];
}
