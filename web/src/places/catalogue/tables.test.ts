import { describe, expect, it, test } from "vitest";
import type { Catalogue } from "../../api/types";
import type { Row } from "./tables";
import { matches, sourcesOf, tablesOf } from "./tables";

const row = (kind: Row["source"]["kind"], ...cells: string[]): Row => ({
  id: cells.join(),
  cells,
  source: { kind, text: "brake tube" },
});

describe("the catalogue's tables", () => {
  it("count their sources over all tables, the most first", () => {
    const tables = [{ rows: [row("standard"), row("from memory")] }, { rows: [row("from memory")] }];
    expect(sourcesOf(tables)).toEqual([
      ["from memory", 2],
      ["standard", 1],
    ]);
  });

  it("are searched by every word, the source's too", () => {
    expect(matches(row("standard", "copper-nickel", "3/16 in"), "3/16 brake")).toBe(true);
    expect(matches(row("standard", "copper-nickel", "3/16 in"), "3/16 steel")).toBe(false);
  });
});

const told = { kind: "standard", text: "a table" } as const;
const row1 = <T extends object>(fields: T) => ({ ...fields, source: told });

/** A catalogue of one row of everything, and what stands in the place of what is not known. */
const catalogue = {
  materials: [
    row1({
      id: "cunifer", name: "copper-nickel", ultimate_mpa: 262, bends: "by hand", flares: "easy",
      least_radius_per_od: 2, derating: [[65, 1], [200, 0.85]], strength_source: { kind: "from memory", text: "x" },
    }),
    row1({
      id: "odd", name: "odd", ultimate_mpa: 1, bends: "", flares: "", least_radius_per_od: 1, derating: [],
      strength_source: told,
    }),
  ],
  fittings: [
    row1({ id: "double-45", name: "45° double", seals: "on its cone", grip_mm: 25, rated: null }),
    row1({ id: "plain", name: "plain", seals: "no", grip_mm: 0, rated: { kpa: 250, source: told } }),
  ],
  tubes: [row1({ id: "t", material: "cunifer", size: "3/16 in", od_mm: 4.7625, wall_mm: 0.711 }),
    row1({ id: "u", material: "gone", size: "1 mm", od_mm: 1, wall_mm: 0.1 })],
  end_sizes: [
    row1({ fitting: "double-45", size: "3/16 in", flare_diameter_mm: 7, used_mm: 1.5, rated_kpa: 20000 }),
    row1({ fitting: "gone", size: "1 mm", flare_diameter_mm: null, used_mm: null, rated_kpa: null }),
  ],
  nuts: [row1({ id: "n", fitting: "double-45", size: "3/16 in", thread: "3/8-24", length_mm: 15.9, hex_mm: 9.525 }),
    row1({ id: "m", fitting: "gone", size: "", thread: "", length_mm: 1, hex_mm: 1 })],
  torques: [
    row1({ id: "q", fitting: "double-45", thread: "3/8-24", tubes: "t u", least_nm: 12, most_nm: 16 }),
    row1({ id: "r", fitting: "gone", thread: "M10x1", tubes: "", least_nm: 12, most_nm: 16 }),
  ],
  clips: [row1({ id: "p", name: "P-clip", inside_mm: 5 })],
  seats: [
    row1({ id: "s", name: "inverted", takes: ["double-45", "gone"], wrong: [{ id: "plain" }, { id: "lost" }] }),
    row1({ id: "s2", name: "cone", takes: [], wrong: [] }),
  ],
  threads: [row1({ designation: "3/8-24", used_for: "brakes" })],
  pipes: [
    row1({ designation: "G1/4", flank_deg: 55, tpi: 19, diameter_mm: 13.157, taper: false }),
    row1({ designation: "R1/4", flank_deg: 55, tpi: 19, diameter_mm: 13.157, taper: true }),
  ],
  hose_classes: [
    row1({ id: "fuel", name: "fuel hose", liner: "rubber", lowest_c: -40, highest_c: 100, families: ["petrol", "diesel"], clamps: ["band", "gone"] }),
    row1({ id: "braid", name: "braid", liner: "PTFE", lowest_c: -60, highest_c: 200, families: [], clamps: [] }),
  ],
  hoses: [row1({ id: "h", hose_class: "fuel", size: "6 mm", id_mm: 6, od_mm: 12, pressure_kpa: 1000, least_radius_mm: 50 }),
    row1({ id: "i", hose_class: "gone", size: "7 mm", id_mm: 7, od_mm: 12, pressure_kpa: null, least_radius_mm: 50 })],
  hose_ends: [
    row1({ id: "e", name: "straight", hose_classes: ["fuel"], sizes: [{ dash: 6, size: "3/8 in", cut_off_mm: 20, tail_mm: 30, bend_mm: 0, nose_mm: 5 }] }),
    row1({ id: "f", name: "any", hose_classes: ["fuel", "gone"], sizes: [] }),
  ],
  clearances: [row1({ id: "c", name: "exhaust", least_mm: 50, harm: "it chars", remedy: "a shield" })],
  clamp_kinds: [row1({ id: "band", name: "band clamp" })],
  clamps: [row1({ id: "k", kind: "band", closed_mm: 10, open_mm: 16, width_mm: 9 }),
    row1({ id: "l", kind: "gone", closed_mm: 1, open_mm: 2, width_mm: 3 })],
  component_families: [row1({ id: "brass", name: "brass body" })],
  components: [
    row1({ id: "x", what: "tee", name: "a tee", family: "brass", rated_kpa: 2500, highest_c: 120 }),
    row1({ id: "y", what: "tee", name: "another", family: "gone", rated_kpa: null, highest_c: null }),
  ],
  fluids: [
    row1({ id: "oil", name: "oil 46", family: "mineral oil", density_kg_m3: 870, viscosities: [[40, 46], [100, 7]], attacks: [{ id: "EPDM" }, { id: "paint" }] }),
    row1({ id: "water", name: "water", family: "water", density_kg_m3: 998, viscosities: [], attacks: [] }),
  ],
  services: [
    row1({ id: "v", name: "brake", duty: { working_kpa: 10000, test_kpa: 15000, design_factor: 2.5, hot_c: 120, fluid: "oil", source: told } }),
    row1({ id: "w", name: "drain", duty: { working_kpa: 1, test_kpa: 1, design_factor: 4, hot_c: 50, fluid: "gone", source: told } }),
    row1({ id: "z", name: "left to others", duty: null }),
  ],
  tool_kinds: [row1({ id: "lever", mount: "in the hand" })],
  benders: [
    row1({ id: "b", name: "lever bender", kind: "lever", size: "3/16 in", radius_mm: 15, greatest_angle_deg: 180 }),
    row1({ id: "d", name: "by hand", kind: "gone", size: "any", radius_mm: null, greatest_angle_deg: 90 }),
  ],
  wrenches: [row1({ name: "3/8", mm: 9.525 })],
  limits: [row1({ id: "hand_mm", value: 5 })],
  advice: [row1({ id: "let_in", text: "Cut it square." })],
} as unknown as Catalogue; // prettier-ignore

const shown = (id: string) =>
  tablesOf(catalogue)
    .find((table) => table.id === id)
    ?.rows.map(({ cells }) => cells);

// what stands in each table, in the trade's units; a name that is gone is shown by its id
test.each([
  ["tubes", [["copper-nickel", "3/16 in", "4.763 mm", "0.711 mm"], ["gone", "1 mm", "1 mm", "0.1 mm"]]],
  ["materials", [["copper-nickel", "262 MPa", "by hand", "easy", "2 × outside", "200 °C"], ["odd", "1 MPa", "", "", "1 × outside", "? °C"]]],
  ["fittings", [["45° double", "on its cone", "25 mm"], ["plain", "no", "–"]]],
  ["end-sizes", [
    ["45° double", "3/16 in", "7 mm", "1.5 mm", "200 bar · 2,901 psi"],
    ["gone", "1 mm", "–", "by formula", "as the tube"],
    ["plain", "every size", "–", "0 mm", "2.50 bar · 36.3 psi"],
  ]],
  ["nuts", [["45° double", "3/16 in", "3/8-24", "15.9 mm", "9.525 mm"], ["gone", "", "", "1 mm", "1 mm"]]],
  ["torques", [["45° double", "3/8-24", "t, u", "12 to 16 N·m · 9 to 12 lbf·ft"], ["gone", "M10x1", "any", "12 to 16 N·m · 9 to 12 lbf·ft"]]],
  ["clips", [["P-clip", "5 mm"]]],
  ["seats", [["inverted", "45° double, gone", "plain, lost"], ["cone", "", "–"]]],
  ["threads", [["3/8-24", "brakes"]]],
  ["pipe-threads", [["G1/4", "55°", "19", "13.157 mm", "parallel"], ["R1/4", "55°", "19", "13.157 mm", "1 in 16"]]],
  ["hoses", [["fuel hose", "6 mm", "6 mm", "12 mm", "10.0 bar · 145 psi", "50 mm"], ["gone", "7 mm", "7 mm", "12 mm", "as the tube", "50 mm"]]],
  ["hose-classes", [["fuel hose", "rubber", "-40 to 100 °C", "petrol, diesel", "band clamp, gone"], ["braid", "PTFE", "-60 to 200 °C", "", "none: crimped or reusable"]]],
  ["hose-ends", [["straight", "6", "3/8 in", "20 mm", "30 mm", "0 mm", "5 mm"], ["any", "", "fuel hose, gone", "", "", "", ""]]],
  ["clearances", [["exhaust", "50 mm", "it chars", "a shield"]]],
  ["clamps", [["band clamp", "10 mm", "16 mm", "9 mm"], ["gone", "1 mm", "2 mm", "3 mm"]]],
  ["components", [["tee", "a tee", "brass body", "25 bar", "120 °C"], ["tee", "another", "gone", "not known", "–"]]],
  ["fluids", [["oil 46", "mineral oil", "870 kg/m³", "46 mm²/s at 40 °C, 7 mm²/s at 100 °C", "EPDM, paint"], ["water", "water", "998 kg/m³", "", "–"]]],
  ["services", [["brake", "100 bar · 1,450 psi", "150 bar · 2,176 psi", "2.5", "120 °C", "oil 46"], ["drain", "0.01 bar · 0.15 psi", "0.01 bar · 0.15 psi", "4", "50 °C", ""]]],
  ["benders", [["lever bender", "in the hand", "3/16 in", "15 mm", "180°"], ["by hand", "", "any", "any", "90°"]]],
  ["wrenches", [["3/8", "9.525 mm"]]],
  ["rules", [["hand mm", "5"], ["let in", "Cut it square."]]],
])("%s", (id, cells) => {
  expect(shown(id)).toEqual(cells);
}); // prettier-ignore

test("every table has as many figures in a row as heads, and a name of its own", () => {
  const tables = tablesOf(catalogue);
  expect(new Set(tables.map(({ id }) => id)).size).toBe(21);
  for (const { columns, rows } of tables) for (const { cells } of rows) expect(cells).toHaveLength(columns.length);
});

test("what is bought has what its price is for, and what it is called in the stock", () => {
  const bought = tablesOf(catalogue).flatMap(({ rows }) => rows.slice(0, 1).map(({ ref, per }) => ref && [ref, per]));
  expect(bought.filter(Boolean)).toEqual([
    ["tube:t", "metre"],
    ["nut:n", "piece"],
    ["clip:p", "piece"],
    ["hose:h", "metre"],
    ["clamp:k", "piece"],
    ["part:x", "piece"],
    ["fluid:oil", "litre"],
  ]);
});

test("a material's row rests on where its strength is from", () => {
  const materials = tablesOf(catalogue).find(({ id }) => id === "materials");
  expect(materials?.rows[0]?.source.kind).toBe("from memory");
});
