import type { BendRow, Beyond, CornerRow, Line } from "../api/types";
import { insertAt, moveRow, removeAt, spanOf, withSpan } from "./rows";

/*
 * Every edit of a list that something else in the document refers to by number: bends and straights, pieces
 * beyond an end, damage, clips, openings. The references move with what they mean, and go where it goes, so
 * that a reason or an instruction can never come to stand at a neighbour.
 */

export type RowEdit<Row> =
  | { kind: "insert"; at: number; row: Row }
  | { kind: "remove"; at: number }
  | { kind: "move"; from: number; to: number };

/** Where each old place (from 0) is after an edit; null where it is gone. */
type Places = readonly (number | null)[];

function edited<Row>(rows: readonly Row[], edit: RowEdit<Row>): Row[] {
  if (edit.kind === "insert") return insertAt(rows, edit.at, edit.row);
  return edit.kind === "remove" ? removeAt(rows, edit.at) : moveRow(rows, edit.from, edit.to);
}

function placesAfter<Row>(count: number, edit: RowEdit<Row>): Places {
  const marks: (number | null)[] = Array.from({ length: count }, (_, k) => k);
  const now = edited<number | null>(marks, edit.kind === "insert" ? { kind: "insert", at: edit.at, row: null } : edit);
  return marks.map((mark) => {
    const at = now.indexOf(mark);
    return at < 0 ? null : at;
  });
}

/** Edit the rows of bend readings. */
export function editBendRows(line: Line, edit: RowEdit<BendRow>): Line {
  const { readings } = spanOf(line);
  if (readings.kind !== "bends") return line;
  const count = readings.rows.length;
  const changed = withSpan(line, { readings: { ...readings, rows: edited(readings.rows, edit) } });
  const after = placesAfter(count, edit);
  // the two ends are nodes of the chain as well: a leg lies between two nodes
  const last = changedRows(changed) + 1;
  const nodes: Places = [0, ...after.map((at) => (at === null ? null : at + 1)), last];
  return moveBends(changed, nodes, edit.kind === "insert");
}

/** Edit the rows of corner points; the inner ones are the bends. */
export function editCornerRows(line: Line, edit: RowEdit<CornerRow>): Line {
  const { readings } = spanOf(line);
  if (readings.kind !== "corners") return line;
  const changed = withSpan(line, { readings: { ...readings, rows: edited(readings.rows, edit) } });
  return moveBends(changed, placesAfter(readings.rows.length, edit), edit.kind === "insert");
}

const changedRows = (line: Line): number => spanOf(line).readings.rows.length;

/** `nodes` tells for each node of the old chain (end A, bends, end B) where it is in the new one. */
function moveBends(line: Line, nodes: Places, added: boolean): Line {
  const readings = spanOf(line).readings;
  const end = readings.kind === "bends" ? readings.rows.length + 1 : readings.rows.length - 1;
  const bend = (number: number): number | null => {
    const at = nodes[number] ?? null;
    return number < 1 || number >= nodes.length - 1 || at === null || at < 1 || at >= end ? null : at;
  };
  const straight = (number: number): number | null => {
    const [from, to] = [nodes[number - 1] ?? null, nodes[number] ?? null];
    return from !== null && to === from + 1 ? to : null;
  };
  const span = spanOf(line);
  const order = added ? "" : moveOrder(span.order, bend);
  return {
    ...withSpan(line, {
      order,
      left_open: (span.left_open ?? []).flatMap((item) => numbered({ ...item }, "bend", bend(item.bend))),
    }),
    bought: line.bought.flatMap((item) => {
      if (item.kind === "bend" || item.kind === "plane") return numbered({ ...item }, "number", bend(item.number));
      return item.kind === "leg" ? numbered({ ...item }, "number", straight(item.number)) : [item];
    }),
    set_aside: line.set_aside.flatMap((item) => {
      const place = /^(bend|straight) (\d+)$/.exec(item.where);
      if (!place) return [item];
      const now = (place[1] === "bend" ? bend : straight)(Number(place[2]));
      return now === null ? [] : [{ ...item, where: `${place[1] ?? ""} ${now}` }];
    }),
  };
}

function numbered<Item, Key extends keyof Item>(item: Item, key: Key, now: Item[Key] | null): Item[] {
  return now === null ? [] : [{ ...item, [key]: now }];
}

/** "A1 A3 B2" with its bends renumbered; those that are gone are left out. */
function moveOrder(order: string, bend: (number: number) => number | null): string {
  return order
    .replace(/([AB])\s*(\d+)\s*/gi, (_, held: string, number: string) => {
      const now = bend(Number(number));
      return now === null ? "" : `${held}${now} `;
    })
    .trim();
}

/** Edit what lies beyond one end. */
export function editBeyond(line: Line, end: "A" | "B", edit: RowEdit<Beyond>): Line {
  const key = end === "A" ? "end_a" : "end_b";
  const pieces = line[key].beyond;
  const after = placesAfter(pieces.length, edit);
  return {
    ...line,
    [key]: { ...line[key], beyond: edited(pieces, edit) },
    set_aside: line.set_aside.flatMap((item) => {
      const place = /^piece (\d+) beyond ([AB])$/.exec(item.where);
      if (!place || place[2] !== end) return [item];
      const now = after[Number(place[1]) - 1] ?? null;
      return now === null ? [] : [{ ...item, where: `piece ${now + 1} beyond ${end}` }];
    }),
  };
}

/** The codes of findings that are told of one entry of a list each. */
const CODES = { damage: "old_contact_", fixtures: "fixture_", openings: "opening_" } as const;

function moveCodes(line: Line, list: keyof typeof CODES, after: Places): Line["set_aside"] {
  const start = CODES[list];
  return line.set_aside.flatMap((item) => {
    const number = item.code.startsWith(start) ? Number(item.code.slice(start.length)) : NaN;
    if (!Number.isInteger(number)) return [item];
    const now = after[number - 1] ?? null;
    return now === null ? [] : [{ ...item, code: `${start}${now + 1}` }];
  });
}

/** Take one damaged place, or one clip or sleeve, out of the list. */
export function removeFound(line: Line, list: "damage" | "fixtures", at: number): Line {
  const rows: readonly unknown[] = line.condition[list];
  const set_aside = moveCodes(line, list, placesAfter(rows.length, { kind: "remove", at }));
  return { ...line, condition: { ...line.condition, [list]: removeAt(rows, at) }, set_aside };
}

/** Take one opening out of the list. */
export function removeOpening(line: Line, at: number): Line {
  const openings = line.openings ?? [];
  const set_aside = moveCodes(line, "openings", placesAfter(openings.length, { kind: "remove", at }));
  return { ...line, openings: removeAt(openings, at), set_aside };
}
