import type { BendReadings, BendRow, By, CornerReadings, CornerRow, Length, Line, RigidSpan, Unit } from "../api/types";

export const READINGS = "/spans/0/readings";

export function spanOf(line: Line): RigidSpan {
  const span = line.spans[0];
  if (!span) throw new Error("a line has a span");
  return span;
}

export function withSpan(line: Line, change: Partial<RigidSpan>): Line {
  return { ...line, spans: [{ ...spanOf(line), ...change }] };
}

export const typed = (text: string, unit: Unit): Length => ({ text, unit, exact_mm: null });

export function blankBend(unit: Unit): BendRow {
  return {
    by: "leg",
    length: typed("", unit),
    to: typed("", unit),
    read_from: "outside",
    read_to: "outside",
    angle: { text: "", exact_deg: null },
    plane: { text: "", by: "", exact_deg: null },
    radius: null,
  };
}

/** A row of the same method as the one above it; the first one is of the method that the line is read by. */
export function bendLike(unit: Unit, row: BendRow | undefined, by: By = "leg"): BendRow {
  const blank = blankBend(unit);
  if (!row) return by === "wire" ? { ...blank, by, read_from: "start", read_to: "start" } : { ...blank, by };
  return row.by === "wire"
    ? { ...blank, by: "wire", read_from: "start", read_to: row.read_to }
    : { ...blank, by: row.by };
}

export const blankCorner = (unit: Unit): CornerRow => ({
  x: typed("", unit),
  y: typed("", unit),
  z: typed("", unit),
  radius: null,
});

export function insertAt<T>(rows: readonly T[], at: number, row: T): T[] {
  return [...rows.slice(0, at), row, ...rows.slice(at)];
}

export function removeAt<T>(rows: readonly T[], at: number): T[] {
  return rows.filter((_, k) => k !== at);
}

export function moveRow<T>(rows: readonly T[], from: number, to: number): T[] {
  const row = rows[from];
  if (row === undefined || to < 0 || to >= rows.length) return [...rows];
  return insertAt(removeAt(rows, from), to, row);
}

export function bendRows(line: Line): BendRow[] {
  const { readings } = spanOf(line);
  return readings.kind === "bends" ? readings.rows : [];
}

/** The new tube is bent after the old part laid beside it; its bends are there and nobody reads them. */
export function isCopied(line: Line): boolean {
  const { readings } = spanOf(line);
  return readings.kind === "bends" && readings.alongside && readings.rows.length === 0;
}

export function editBends(line: Line, change: (readings: BendReadings) => BendReadings): Line {
  const { readings } = spanOf(line);
  return readings.kind === "bends" ? withSpan(line, { readings: change(readings) }) : line;
}

export function editCorners(line: Line, change: (readings: CornerReadings) => CornerReadings): Line {
  const { readings } = spanOf(line);
  return readings.kind === "corners" ? withSpan(line, { readings: change(readings) }) : line;
}
