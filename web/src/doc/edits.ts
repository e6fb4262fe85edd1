import type { BendRow, CornerRow, Line, RigidSpan } from "../api/types";
import { bendIds, insertAt, moveRow, removeAt, spanOf, withSpan } from "./rows";

/*
 * Edits of rows. Whatever else in the document speaks of a row does so by its id and needs no care; only what a
 * row meant to its neighbours ends with it: a straight lies between two bends, an order names every bend once.
 */

export type RowEdit<Row> =
  | { kind: "insert"; at: number; row: Row }
  | { kind: "remove"; at: number }
  | { kind: "move"; from: number; to: number };

function edited<Row>(rows: readonly Row[], edit: RowEdit<Row>): Row[] {
  if (edit.kind === "insert") return insertAt(rows, edit.at, edit.row);
  return edit.kind === "remove" ? removeAt(rows, edit.at) : moveRow(rows, edit.from, edit.to);
}

/** Edit the rows of bend readings. */
export function editBendRows(line: Line, edit: RowEdit<BendRow>, id = ""): Line {
  const span = spanOf(line, id);
  if (span.readings.kind !== "bends") return line;
  return settled(line, span, { ...span.readings, rows: edited(span.readings.rows, edit) });
}

/** Edit the rows of corner points; the inner ones are the bends. */
export function editCornerRows(line: Line, edit: RowEdit<CornerRow>, id = ""): Line {
  const span = spanOf(line, id);
  if (span.readings.kind !== "corners") return line;
  return settled(line, span, { ...span.readings, rows: edited(span.readings.rows, edit) });
}

/** `line` with other rows in one tube, without what was said of bends and straights that are no more. */
function settled(line: Line, was: RigidSpan, readings: RigidSpan["readings"]): Line {
  const now = { ...was, readings };
  const [before, after] = [legs(was), legs(now)];
  const bends = new Set(bendIds(now));
  const sameLeg = (row: string) => before.get(row) !== undefined && before.get(row) === after.get(row);
  const changed = withSpan(
    line,
    {
      readings,
      order: [...bends].every((row) => before.has(row)) ? was.order.filter((one) => bends.has(one.row)) : [],
      left_open: was.left_open.filter((item) => bends.has(item.row)),
      bought: was.bought.filter((item) => {
        if (item.kind === "bend" || item.kind === "plane") return bends.has(item.row);
        return item.kind !== "leg" || sameLeg(item.row);
      }),
    },
    was.id,
  );
  return {
    ...changed,
    set_aside: line.set_aside.filter(({ at }) => {
      if (at.span !== was.id) return true;
      if (at.kind === "bend") return bends.has(at.row);
      return at.kind !== "straight" || sameLeg(at.row);
    }),
  };
}

/** What every straight lies between: the bend that it leads to (none: end B), and the one that it comes from. */
function legs(span: RigidSpan): Map<string, string> {
  const found = new Map<string, string>();
  let from = "A";
  for (const row of bendIds(span)) {
    found.set(row, from);
    from = row;
  }
  return found.set("", from);
}

/** Take one damaged place, or one clip or sleeve, out of the list. */
export function removeFound(line: Line, list: "damage" | "fixtures", id: string): Line {
  const rows = line.condition[list] as readonly { id: string }[];
  return {
    ...line,
    condition: { ...line.condition, [list]: rows.filter((row) => row.id !== id) },
    set_aside: line.set_aside.filter((item) => item.at.item !== id),
  };
}

/** Take one opening out of the list. */
export function removeOpening(line: Line, id: string, tube = ""): Line {
  const span = spanOf(line, tube);
  const changed = withSpan(line, { openings: span.openings.filter((item) => item.id !== id) }, span.id);
  return {
    ...changed,
    set_aside: line.set_aside.filter((item) => !(item.at.span === span.id && item.at.item === id)),
  };
}
