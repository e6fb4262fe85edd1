import { describe, expect, it } from "vitest";
import type { BendRow, Beyond, Line, SetAside } from "../api/types";
import { blankBend, typed } from "./rows";
import { editBendRows, editBeyond, editCornerRows, removeFound, removeOpening } from "./edits";
import type { RowEdit } from "./edits";

const reason = "agreed with the inspector";

/** A line whose every bend and straight has a reason, an instruction and a reading that names it. */
function line(bends: number): Line {
  const rows = Array.from({ length: bends }, (_, k) => ({ ...blankBend("mm"), length: typed(`bend ${k + 1}`, "mm") }));
  const numbers = rows.map((_, k) => k + 1);
  const aside = (where: string): SetAside => ({ code: "found", where, reason: `${reason}: ${where}` });
  return {
    end_a: { beyond: [] },
    end_b: { beyond: [] },
    condition: { damage: [], fixtures: [] },
    openings: [],
    spans: [
      {
        readings: { kind: "bends", rows, last: typed("", "mm"), last_by: "leg", last_read_from: "outside" },
        order: [...numbers]
          .reverse()
          .map((n) => `A${n}`)
          .join(" "),
        left_open: numbers.map((bend) => ({ bend, angle: { text: `open ${bend}`, exact_deg: null }, how: "by hand" })),
      },
    ],
    bought: [
      ...numbers.map((number) => ({ kind: "bend", number, text: `bend ${number}`, unit: "mm", by: "" })),
      ...[...numbers, bends + 1].map((number) => ({ kind: "leg", number, text: `leg ${number}`, unit: "mm", by: "" })),
      { kind: "rim to rim", number: 1, text: "whole", unit: "mm", by: "" },
    ],
    set_aside: [
      ...numbers.map((n) => aside(`bend ${n}`)),
      ...[...numbers, bends + 1].map((n) => aside(`straight ${n}`)),
      aside("tube"),
      aside("end A"),
    ],
  } as unknown as Line;
}

const rowsOf = (made: Line) => (made.spans[0]?.readings.rows ?? []) as BendRow[];
/** What row stands at bend `number` now, by what it was before the edit. */
const was = (made: Line, number: number) => rowsOf(made)[number - 1]?.length.text ?? "";

const EDITS: RowEdit<BendRow>[] = [];
for (let at = 0; at <= 4; at++)
  EDITS.push({ kind: "insert", at, row: { ...blankBend("mm"), length: typed("new", "mm") } });
for (let at = 0; at < 4; at++) EDITS.push({ kind: "remove", at });
for (let from = 0; from < 4; from++) for (let to = 0; to < 4; to++) EDITS.push({ kind: "move", from, to });

describe.each(EDITS)("an edit of the rows", (edit) => {
  const before = line(4);
  const after = editBendRows(before, edit);
  const name = JSON.stringify({ ...edit, row: undefined });

  it(`keeps every reason at the bend it was given for (${name})`, () => {
    for (const item of after.set_aside) {
      const [kind, number] = item.where.split(" ");
      if (kind === "bend") expect(item.reason).toBe(`${reason}: ${was(after, Number(number))}`);
    }
    const kept = rowsOf(after).filter((row) => row.length.text !== "new").length;
    expect(after.set_aside.filter((item) => item.where.startsWith("bend")).length).toBe(kept);
    expect(after.set_aside.filter((item) => item.where === "tube" || item.where === "end A").length).toBe(2);
  });

  it(`keeps a reason of a straight only between the two it lay between (${name})`, () => {
    const chain = (made: Line) => ["A", ...rowsOf(made).map((row) => row.length.text), "B"];
    const [old, now] = [chain(before), chain(after)];
    for (const item of after.set_aside) {
      if (!item.where.startsWith("straight")) continue;
      const at = Number(item.where.split(" ")[1]);
      const from = Number(item.reason.split("straight ")[1]);
      expect([now[at - 1], now[at]]).toEqual([old[from - 1], old[from]]);
    }
    const survive = old
      .slice(1)
      .filter((node, k) => now.some((other, at) => other === node && at > 0 && now[at - 1] === old[k])).length;
    expect(after.set_aside.filter((item) => item.where.startsWith("straight")).length).toBe(survive);
  });

  it(`keeps what is left open, and what was read of a bought part (${name})`, () => {
    for (const item of after.spans[0]?.left_open ?? [])
      expect(item.angle.text).toBe(`open ${was(after, item.bend).split(" ")[1] ?? ""}`);
    for (const item of after.bought) if (item.kind === "bend") expect(item.text).toBe(was(after, item.number ?? 0));
    expect(after.bought.some((item) => item.kind === "rim to rim")).toBe(true);
  });

  it(`keeps the order of the bends, or none at all (${name})`, () => {
    const order = after.spans[0]?.order ?? "";
    if (edit.kind === "insert") return expect(order).toBe("");
    const told = order.split(" ").map((token) => was(after, Number(token.slice(1))));
    const asked = ["bend 4", "bend 3", "bend 2", "bend 1"].filter((row) =>
      rowsOf(after).some((item) => item.length.text === row),
    );
    return expect(told).toEqual(asked);
  });
});

it("leaves the references of corner points with their corners", () => {
  const points = ["a", "b", "c", "d"].map((text) => ({
    x: typed(text, "mm"),
    y: typed("", "mm"),
    z: typed("", "mm"),
    radius: null,
  }));
  const base = line(2);
  const made = {
    ...base,
    spans: [{ ...base.spans[0], readings: { kind: "corners", rows: points } }],
  } as unknown as Line;
  const wheres = (edited: Line) => edited.set_aside.map((item) => [item.where, item.reason.split(": ")[1]]);
  const inserted = editCornerRows(made, {
    kind: "insert",
    at: 1,
    row: { x: typed("n", "mm"), y: typed("", "mm"), z: typed("", "mm"), radius: null },
  });
  expect(wheres(inserted)).toContainEqual(["bend 2", "bend 1"]);
  expect(wheres(inserted)).toContainEqual(["straight 3", "straight 2"]);
  expect(wheres(inserted).some(([, was]) => was === "straight 1")).toBe(false);
  const shorter = editCornerRows(made, { kind: "remove", at: 3 });
  expect(wheres(shorter)).toContainEqual(["bend 1", "bend 1"]);
  expect(wheres(shorter).some(([, was]) => was === "bend 2")).toBe(false);
});

it("moves reasons with the pieces beyond an end, of that end only", () => {
  const piece = (note: string) => ({ kind: "part", part: "filter", note }) as unknown as Beyond;
  const base = line(1);
  const beyond = [piece("1"), piece("2"), piece("3")];
  const made = {
    ...base,
    end_a: { beyond },
    end_b: { beyond },
    set_aside: ["A", "B"].flatMap((end) =>
      [1, 2, 3].map((n) => ({ code: "found", where: `piece ${n} beyond ${end}`, reason: `${reason} ${n}` })),
    ),
  } as unknown as Line;
  for (const edit of [
    { kind: "insert", at: 0, row: piece("new") },
    { kind: "insert", at: 3, row: piece("new") },
    { kind: "remove", at: 1 },
    { kind: "move", from: 0, to: 2 },
  ] as RowEdit<Beyond>[]) {
    const after = editBeyond(made, "A", edit);
    for (const item of after.set_aside) {
      const [, number, end] = /^piece (\d) beyond (.)$/.exec(item.where) ?? [];
      const there = (end === "A" ? after.end_a : after.end_b).beyond[Number(number) - 1];
      expect(item.reason).toBe(`${reason} ${(there as { note: string }).note}`);
    }
    expect(after.set_aside.filter((item) => item.where.endsWith("B")).length).toBe(3);
  }
});

it("moves reasons with damage, clips and openings", () => {
  const base = line(1);
  const code = (name: string) =>
    [1, 2, 3].map((n) => ({ code: `${name}${n}`, where: "tube", reason: `${reason} ${n}` }));
  const three = [{ note: "1" }, { note: "2" }, { note: "3" }];
  const made = {
    ...base,
    condition: { damage: three, fixtures: three },
    openings: three,
    set_aside: [...code("old_contact_"), ...code("fixture_"), ...code("opening_")],
  } as unknown as Line;
  for (let at = 0; at < 3; at++) {
    const edits = [
      [removeFound(made, "damage", at), "old_contact_"],
      [removeFound(made, "fixtures", at), "fixture_"],
      [removeOpening(made, at), "opening_"],
    ] as const;
    for (const [after, name] of edits) {
      const mine = after.set_aside.filter((item) => item.code.startsWith(name));
      expect(mine.map((item) => item.code)).toEqual([`${name}1`, `${name}2`]);
      expect(mine.map((item) => item.reason.at(-1))).toEqual(["1", "2", "3"].filter((n) => n !== String(at + 1)));
      expect(after.set_aside.length).toBe(8);
    }
  }
});
