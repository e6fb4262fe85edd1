import { expect, test } from "vitest";
import type { Line } from "../api/types";
import { differences, merged } from "./differ";

const line = (fields: object) => fields as unknown as Line;
const rows = (...told: [string, string][]) => told.map(([id, text]) => ({ id, length: { text, unit: "mm" } }));
const bent = (...told: [string, string][]) =>
  line({ name: "Feed", spans: [{ id: "s1", readings: { kind: "bends", rows: rows(...told) } }] });

test("a reading is chosen with its unit, and named by its row", () => {
  const found = differences(bent(["r1", "100"], ["r2", "50"]), bent(["r1", "100"], ["r2", "60"]));
  expect(found).toHaveLength(1);
  expect(found[0]).toMatchObject({
    pointer: "/spans/s1/readings/rows/r2/length",
    mine: "“50”",
    theirs: "“60”",
    changed: "both",
  });
  expect(found[0]?.path).toContain("row 2");
});

test("who changed it is told by what both started from", () => {
  const [base, mine, theirs] = [bent(["r1", "1"]), bent(["r1", "2"]), bent(["r1", "3"])];
  expect(differences(mine, base, base)[0]?.changed).toBe("mine");
  expect(differences(base, theirs, base)[0]?.changed).toBe("theirs");
  expect(differences(mine, theirs, base)[0]?.changed).toBe("both");
  expect(differences(mine, mine, base)).toEqual([]);
});

test("rows with other ids are one choice, never merged place by place", () => {
  const [mine, theirs] = [bent(["r1", "1"], ["r3", "3"]), bent(["r1", "1"], ["r2", "2"])];
  const found = differences(mine, theirs);
  expect(found.map((one) => one.pointer)).toEqual(["/spans/s1/readings/rows"]);
  expect(found[0]).toMatchObject({ mine: "2 rows", theirs: "2 rows" });
  expect(merged(mine, theirs, found, new Map([["/spans/s1/readings/rows", "mine"]]))).toEqual(mine);
  expect(merged(mine, theirs, found, new Map())).toEqual(theirs);
});

test("values are said as a person reads them", () => {
  const said = (value: unknown) => differences(line({ notes: value }), line({ notes: "x" }))[0]?.mine;
  expect([said(""), said(null), said(true), said(false), said("wet")]).toEqual([
    "blank",
    "blank",
    "yes",
    "no",
    "“wet”",
  ]);
  expect([said([]), said(["a", "b"]), said([1]), said(["a", 2])]).toEqual(["none", "a, b", "1 row", "2 rows"]);
  expect([said({ text: "5" }), said({ choice: "splice" }), said({ kind: "corners" }), said({ other: 1 })]).toEqual([
    "“5”",
    "splice",
    "read as corners",
    "read as something else",
  ]);
});
