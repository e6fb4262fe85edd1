import { describe, expect, it } from "vitest";
import type { BendRow, Line, RigidSpan, SetAside } from "../api/types";
import { blankBend, typed } from "./rows";
import { editBendRows, editCornerRows, removeFound, removeOpening } from "./edits";
import type { RowEdit } from "./edits";

const reason = "agreed with the inspector";
const aside = (text: string, at: Partial<SetAside["at"]>): SetAside => ({
  code: "found",
  at: { kind: "tube", span: "s1", row: "", end: null, item: "", ...at },
  reason: `${reason}: ${text}`,
});

/** A line whose every bend and straight has a reason, an instruction and a reading that names it. */
function line(bends: number): Line {
  const rows = Array.from({ length: bends }, (_, k) => ({
    ...blankBend("mm"),
    id: `r${k + 1}`,
    length: typed(`bend ${k + 1}`, "mm"),
  }));
  const ids = rows.map((row) => row.id);
  const legs = [...ids, ""];
  const tube = {
    id: "s1",
    kind: "rigid",
    state: "to make",
    readings: { kind: "bends", rows, last: typed("", "mm"), last_by: "leg", last_read_from: "outside" },
    order: [...ids].reverse().map((row) => ({ row, held: "A" })),
    left_open: ids.map((row) => ({ row, angle: { text: `open ${row}`, exact_deg: null }, how: "by hand" })),
    bought: [
      ...ids.flatMap((row) => ["bend", "plane"].map((kind) => ({ kind, row, text: row, unit: "mm", by: "" }))),
      ...legs.map((row) => ({ kind: "leg", row, text: `leg ${row}`, unit: "mm", by: "" })),
      { kind: "rim to rim", row: "", text: "whole", unit: "mm", by: "" },
    ],
    openings: [{ id: "o1" }, { id: "o2" }],
  };
  return {
    condition: { damage: [{ id: "d1" }, { id: "d2" }], fixtures: [{ id: "f1" }, { id: "f2" }] },
    spans: [{ id: "h1", kind: "hose" }, tube],
    set_aside: [
      ...ids.map((row) => aside(`bend ${row}`, { kind: "bend", row })),
      ...legs.map((row) => aside(`straight ${row}`, { kind: "straight", row })),
      aside("tube", {}),
      aside("end", { kind: "end", end: "A" }),
      aside("hose", { kind: "span", span: "h1" }),
    ],
  } as unknown as Line;
}

const tubeOf = (made: Line) => made.spans[1] as RigidSpan;
const idsOf = (made: Line) => (tubeOf(made).readings.rows as BendRow[]).map((row) => row.id);

const EDITS: RowEdit<BendRow>[] = [];
for (let at = 0; at <= 4; at++) EDITS.push({ kind: "insert", at, row: { ...blankBend("mm"), id: "new" } });
for (let at = 0; at < 4; at++) EDITS.push({ kind: "remove", at });
for (let from = 0; from < 4; from++) for (let to = 0; to < 4; to++) EDITS.push({ kind: "move", from, to });

describe.each(EDITS)("an edit of the rows", (edit) => {
  const name = JSON.stringify({ ...edit, row: undefined });
  const done = () => {
    const before = line(4);
    const after = editBendRows(before, edit);
    return { before, after, there: idsOf(after).filter((id) => id !== "new") };
  };

  it(`keeps every reason of a bend that is still there (${name})`, () => {
    const { before, after, there } = done();
    const kept = after.set_aside.filter((item) => item.at.kind === "bend").map((item) => item.at.row);
    expect(kept).toEqual(idsOf(before).filter((id) => there.includes(id)));
    expect(after.set_aside.filter((item) => ["tube", "end", "span"].includes(item.at.kind)).length).toBe(3);
  });

  it(`keeps a reason of a straight only between the two it lay between (${name})`, () => {
    const { before, after } = done();
    const pairs = (made: Line) => {
      const chain = ["A", ...idsOf(made), ""];
      return new Set(chain.slice(1).map((id, k) => `${chain[k] ?? ""}>${id}`));
    };
    const [old, now] = [pairs(before), pairs(after)];
    const kept = after.set_aside.filter((item) => item.at.kind === "straight").map((item) => item.at.row);
    expect(kept.length).toBe([...old].filter((pair) => now.has(pair)).length);
    for (const row of kept) expect([...old].find((pair) => pair.endsWith(`>${row}`) && now.has(pair))).toBeDefined();
  });

  it(`keeps what is left open, and what was read of a bought part (${name})`, () => {
    const { before, after, there } = done();
    expect(tubeOf(after).left_open.map((item) => item.row)).toEqual(idsOf(before).filter((id) => there.includes(id)));
    const bends = tubeOf(after).bought.filter((item) => item.kind === "bend");
    expect(bends.map((item) => item.row)).toEqual(idsOf(before).filter((id) => there.includes(id)));
    const planes = tubeOf(after).bought.filter((item) => item.kind === "plane");
    expect(planes.map((item) => item.row)).toEqual(bends.map((item) => item.row));
    expect(tubeOf(after).bought.some((item) => item.kind === "rim to rim")).toBe(true);
    const legs = tubeOf(after).bought.filter((item) => item.kind === "leg");
    const straights = after.set_aside.filter((item) => item.at.kind === "straight");
    expect(legs.map((item) => item.row)).toEqual(straights.map((item) => item.at.row));
  });

  it(`keeps the order of the bends, or none at all (${name})`, () => {
    const { after, there } = done();
    const order = tubeOf(after).order.map((one) => one.row);
    expect(order).toEqual(edit.kind === "insert" ? [] : ["r4", "r3", "r2", "r1"].filter((row) => there.includes(row)));
  });
});

it("leaves the reasons of corner points with their corners, and of none that has become an end", () => {
  const base = line(2);
  const rows = ["a", "r1", "r2", "b"].map((id) => ({ id, x: typed(id, "mm") }));
  const made = {
    ...base,
    spans: [base.spans[0], { ...tubeOf(base), readings: { kind: "corners", rows } }],
  } as unknown as Line;
  const bends = (edited: Line) => edited.set_aside.filter((item) => item.at.kind === "bend").map((item) => item.at.row);
  const row = { id: "n" } as never;
  expect(bends(editCornerRows(made, { kind: "insert", at: 1, row }))).toEqual(["r1", "r2"]);
  expect(bends(editCornerRows(made, { kind: "remove", at: 3 }))).toEqual(["r1"]);
});

it("takes the reasons of damage, clips and openings with them", () => {
  const base = line(1);
  const items = ["d1", "d2", "f1", "f2", "o1", "o2"];
  const made = { ...base, set_aside: items.map((item) => aside(item, { item })) };
  const left = (edited: Line) => edited.set_aside.map((item) => item.at.item);
  expect(left(removeFound(made, "damage", "d1"))).toEqual(["d2", "f1", "f2", "o1", "o2"]);
  expect(left(removeFound(made, "fixtures", "f2"))).toEqual(["d1", "d2", "f1", "o1", "o2"]);
  expect(left(removeOpening(made, "o1", "s1"))).toEqual(["d1", "d2", "f1", "f2", "o2"]);
  expect(removeFound(made, "damage", "d1").condition.damage.map(({ id }) => id)).toEqual(["d2"]);
  expect(removeFound(made, "fixtures", "f2").condition.fixtures.map(({ id }) => id)).toEqual(["f1"]);
  expect(tubeOf(removeOpening(made, "o1", "s1")).openings.map(({ id }) => id)).toEqual(["o2"]);
  // what another tube has of the same name stays
  const far = { ...made, set_aside: [aside("far", { span: "s9", item: "o1" }), aside("near", { item: "o1" })] };
  expect(left(removeOpening(far, "o1", "s1"))).toEqual(["o1"]);
  expect(removeOpening(far, "o1", "s1").set_aside[0]?.at.span).toBe("s9");
});

it("leaves alone what is read in another way", () => {
  const bent = line(2);
  const rows = [{ id: "a" }, { id: "b" }];
  const cornered = { ...bent, spans: [{ ...tubeOf(bent), readings: { kind: "corners", rows } }] } as unknown as Line;
  expect(editCornerRows(bent, { kind: "remove", at: 0 })).toBe(bent);
  expect(editBendRows(cornered, { kind: "remove", at: 0 })).toBe(cornered);
});

it("keeps what was said of another tube when a bend of this one goes", () => {
  const base = line(2);
  const far = aside("far", { kind: "bend", span: "s9", row: "r1" });
  const straight = aside("far", { kind: "straight", span: "s9", row: "r1" });
  const made = editBendRows({ ...base, set_aside: [far, straight] }, { kind: "remove", at: 0 });
  expect(made.set_aside).toEqual([far, straight]);
});
