import type {
  BendReadings,
  BendRow,
  By,
  CornerReadings,
  CornerRow,
  Length,
  Line,
  RigidSpan,
  Span,
  Unit,
} from "../api/types";

export const isTube = (span: Span): span is RigidSpan => span.kind === "rigid";

/** The tube that is worked on unless another one is chosen: the first that is to make, else the first. */
export function mainTube(line: Line): RigidSpan | null {
  const tubes = line.spans.filter(isTube);
  return tubes.find((span) => span.state === "to make") ?? tubes[0] ?? null;
}

/** One tube by its id; the main one where none is named. Only for what is shown of a line that has a tube. */
export function spanOf(line: Line, id = ""): RigidSpan {
  const found = line.spans.find((span): span is RigidSpan => isTube(span) && span.id === id) ?? mainTube(line);
  if (!found) throw new Error("this line has no tube");
  return found;
}

export function withSpan(line: Line, change: Partial<RigidSpan>, id = ""): Line {
  const own = spanOf(line, id);
  return { ...line, spans: line.spans.map((span) => (span.id === own.id ? { ...own, ...change } : span)) };
}

/** The places that a tape is held to, from end A to end B: the ends and every bend, by id and name. */
export function spotsOf(readings: RigidSpan["readings"]): { id: string; name: string }[] {
  const bends = readings.kind === "bends" ? readings.rows : readings.rows.slice(1, -1);
  const named = bends.map((row, k) => ({ id: row.id, name: `bend ${k + 1}` }));
  return [{ id: "A", name: "end A" }, ...named, { id: "B", name: "end B" }];
}

/** JSON pointer into the readings of one tube. */
export const readingsAt = (span: string): string => `/spans/${span}/readings`;

/** JSON pointer to something of one row of readings. */
export const rowAt = (span: string, row: string, field: string): string => `${readingsAt(span)}/rows/${row}/${field}`;

/** An id that nothing in the document has: it is never used again, so that no reason finds its way to another. */
export function freshId(letter: string): string {
  const [first = 0, second = 0] = crypto.getRandomValues(new Uint32Array(2));
  return letter + first.toString(36) + (second % 1296).toString(36);
}

export const typed = (text: string, unit: Unit): Length => ({ text, unit, exact_mm: null });

export function blankBend(unit: Unit): BendRow {
  return {
    id: freshId("r"),
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
  id: freshId("r"),
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

export function bendRows(line: Line, id = ""): BendRow[] {
  const { readings } = spanOf(line, id);
  return readings.kind === "bends" ? readings.rows : [];
}

/** The rows that are bends, from end A on: of corner points the inner ones. */
export function bendIds(span: RigidSpan): string[] {
  const ids = span.readings.rows.map((row) => row.id);
  return span.readings.kind === "bends" ? ids : ids.slice(1, -1);
}

/** The new tube is bent after the old part laid beside it; its bends are there and nobody reads them. */
export function isCopied(line: Line, id = ""): boolean {
  if (!mainTube(line)) return false;
  const { readings } = spanOf(line, id);
  return readings.kind === "bends" && readings.alongside && readings.rows.length === 0;
}

export function editBends(line: Line, change: (readings: BendReadings) => BendReadings, id = ""): Line {
  const { readings } = spanOf(line, id);
  return readings.kind === "bends" ? withSpan(line, { readings: change(readings) }, id) : line;
}

export function editCorners(line: Line, change: (readings: CornerReadings) => CornerReadings, id = ""): Line {
  const { readings } = spanOf(line, id);
  return readings.kind === "corners" ? withSpan(line, { readings: change(readings) }, id) : line;
}
