import type { Catalogue, Source } from "../../api/types";
import { sayPressure, sayTorque } from "../../format/units";

export interface Row {
  id: string;
  cells: string[];
  source: Source;
  /** What stock and prices call it, and what one price is for; none for rows that are not bought. */
  ref?: string;
  per?: "metre" | "piece" | "litre";
}

export interface Table {
  id: string;
  name: string;
  columns: string[];
  rows: Row[];
}

const mm = (value: number) => `${Number(value.toFixed(3))} mm`;
const bar = (kpa: number | null | undefined) =>
  kpa == null ? "as the tube" : `${sayPressure(kpa, "mm")} · ${sayPressure(kpa, "in")}`;

/** The catalogue as tables that can be read and searched. */
export function tablesOf(c: Catalogue): Table[] {
  const material = new Map(c.materials.map((row) => [row.id, row.name]));
  const fitting = new Map(c.fittings.map((row) => [row.id, row.name]));
  const hoseClass = new Map(c.hose_classes.map((row) => [row.id, row.name]));
  const clampKind = new Map(c.clamp_kinds.map((row) => [row.id, row.name]));
  return [
    {
      id: "tubes",
      name: "Tube",
      columns: ["material", "size", "outside", "wall"],
      rows: c.tubes.map((r) => ({
        id: r.id,
        cells: [material.get(r.material) ?? r.material, r.size, mm(r.od_mm), mm(r.wall_mm)],
        source: r.source,
        ref: `tube:${r.id}`,
        per: "metre" as const,
      })),
    },
    {
      id: "materials",
      name: "Materials",
      columns: ["material", "least strength", "bends", "flares", "least radius", "used up to"],
      rows: c.materials.map((r) => ({
        id: r.id,
        cells: [
          r.name,
          `${r.ultimate_mpa} MPa`,
          r.bends,
          r.flares,
          `${r.least_radius_per_od} × outside`,
          `${r.derating.at(-1)?.[0] ?? "?"} °C`,
        ],
        source: r.strength_source,
      })),
    },
    {
      id: "fittings",
      name: "Ends",
      columns: ["end", "seals", "tool grips"],
      rows: c.fittings.map((r) => ({
        id: r.id,
        cells: [r.name, r.seals, r.grip_mm > 0 ? mm(r.grip_mm) : "–"],
        source: r.source,
      })),
    },
    {
      id: "end-sizes",
      name: "Ends by size",
      columns: ["end", "tube", "flare", "uses up", "stands"],
      rows: [
        ...c.end_sizes.map((r) => ({
          id: `${r.fitting} ${r.size}`,
          cells: [
            fitting.get(r.fitting) ?? r.fitting,
            r.size,
            r.flare_diameter_mm == null ? "–" : mm(r.flare_diameter_mm),
            r.used_mm == null ? "by formula" : mm(r.used_mm),
            bar(r.rated_kpa),
          ],
          source: r.source,
        })),
        ...c.fittings.flatMap(({ id, name, rated }) =>
          rated ? [{ id, cells: [name, "every size", "–", mm(0), bar(rated.kpa)], source: rated.source }] : [],
        ),
      ],
    },
    {
      id: "nuts",
      name: "Nuts and studs",
      columns: ["for end", "tube", "thread", "long", "hex"],
      rows: c.nuts.map((r) => ({
        id: r.id,
        cells: [fitting.get(r.fitting) ?? r.fitting, r.size, r.thread, mm(r.length_mm), mm(r.hex_mm)],
        source: r.source,
        ref: `nut:${r.id}`,
        per: "piece" as const,
      })),
    },
    {
      id: "torques",
      name: "Torques",
      columns: ["end", "thread", "on tube of", "to"],
      rows: c.torques.map((r) => ({
        id: r.id,
        cells: [
          fitting.get(r.fitting) ?? r.fitting,
          r.thread,
          r.tubes ? r.tubes.split(" ").join(", ") : "any",
          `${sayTorque(r.least_nm, r.most_nm, "mm")} · ${sayTorque(r.least_nm, r.most_nm, "in")}`,
        ],
        source: r.source,
      })),
    },
    {
      id: "clips",
      name: "Clips",
      columns: ["clip", "closes round"],
      rows: c.clips.map((r) => ({
        id: r.id,
        cells: [r.name, mm(r.inside_mm)],
        source: r.source,
        ref: `clip:${r.id}`,
        per: "piece" as const,
      })),
    },
    {
      id: "seats",
      name: "Seats",
      columns: ["port", "takes", "looks right and is not"],
      rows: c.seats.map((r) => ({
        id: r.id,
        cells: [
          r.name,
          r.takes.map((id) => fitting.get(id) ?? id).join(", "),
          r.wrong.map((w) => fitting.get(w.id) ?? w.id).join(", ") || "–",
        ],
        source: r.source,
      })),
    },
    {
      id: "threads",
      name: "Threads",
      columns: ["thread", "used for"],
      rows: c.threads.map((r) => ({ id: r.designation, cells: [r.designation, r.used_for], source: r.source })),
    },
    {
      id: "pipe-threads",
      name: "Pipe threads",
      columns: ["thread", "flanks", "per inch", "diameter", "taper"],
      rows: c.pipes.map((r) => ({
        id: r.designation,
        cells: [r.designation, `${r.flank_deg}°`, String(r.tpi), mm(r.diameter_mm), r.taper ? "1 in 16" : "parallel"],
        source: r.source,
      })),
    },
    {
      id: "hoses",
      name: "Hose",
      columns: ["class", "size", "bore", "outside", "stands", "least radius"],
      rows: c.hoses.map((r) => ({
        id: r.id,
        cells: [
          hoseClass.get(r.hose_class) ?? r.hose_class,
          r.size,
          mm(r.id_mm),
          mm(r.od_mm),
          bar(r.pressure_kpa),
          mm(r.least_radius_mm),
        ],
        source: r.source,
        ref: `hose:${r.id}`,
        per: "metre" as const,
      })),
    },
    {
      id: "hose-classes",
      name: "Hose classes",
      columns: ["class", "liner", "heat", "for", "clamps"],
      rows: c.hose_classes.map((r) => ({
        id: r.id,
        cells: [
          r.name,
          r.liner,
          `${r.lowest_c} to ${r.highest_c} °C`,
          r.families.join(", "),
          r.clamps.map((id) => clampKind.get(id) ?? id).join(", ") || "none: crimped or reusable",
        ],
        source: r.source,
      })),
    },
    {
      id: "hose-ends",
      name: "Hose ends",
      columns: ["end", "dash", "takes", "straight adds", "tail", "bend", "nose"],
      rows: c.hose_ends.flatMap((r) =>
        (r.sizes.length ? r.sizes : [null]).map((size) => ({
          id: `${r.id} ${size?.dash ?? ""}`,
          cells: [
            r.name,
            size ? String(size.dash) : "",
            size?.size ?? r.hose_classes.map((id) => hoseClass.get(id) ?? id).join(", "),
            size ? mm(size.cut_off_mm) : "",
            size ? mm(size.tail_mm) : "",
            size ? mm(size.bend_mm) : "",
            size ? mm(size.nose_mm) : "",
          ],
          source: r.source,
        })),
      ),
    },
    {
      id: "clearances",
      name: "Clearances",
      columns: ["beside a hose", "at least", "otherwise", "remedy"],
      rows: c.clearances.map((r) => ({
        id: r.id,
        cells: [r.name, mm(r.least_mm), r.harm, r.remedy],
        source: r.source,
      })),
    },
    {
      id: "clamps",
      name: "Clamps",
      columns: ["kind", "closed", "open", "wide"],
      rows: c.clamps.map((r) => ({
        id: r.id,
        cells: [clampKind.get(r.kind) ?? r.kind, mm(r.closed_mm), mm(r.open_mm), mm(r.width_mm)],
        source: r.source,
        ref: `clamp:${r.id}`,
        per: "piece" as const,
      })),
    },
    {
      id: "components",
      name: "Components",
      columns: ["kind", "which", "made of and for", "rated", "hottest"],
      rows: c.components.map((r) => ({
        id: r.id,
        cells: [
          r.what,
          r.name,
          c.component_families.find(({ id }) => id === r.family)?.name ?? r.family,
          r.rated_kpa == null ? "not known" : `${r.rated_kpa / 100} bar`,
          r.highest_c == null ? "–" : `${r.highest_c} °C`,
        ],
        source: r.source,
        ref: `part:${r.id}`,
        per: "piece" as const,
      })),
    },
    {
      id: "fluids",
      name: "Fluids",
      columns: ["fluid", "family", "density", "viscosity", "harms"],
      rows: c.fluids.map((r) => ({
        id: r.id,
        cells: [
          r.name,
          r.family,
          `${r.density_kg_m3} kg/m³`,
          r.viscosities.map(([at, value]) => `${value} mm²/s at ${at} °C`).join(", "),
          r.attacks.map((a) => a.id).join(", ") || "–",
        ],
        source: r.source,
        ref: `fluid:${r.id}`,
        per: "litre" as const,
      })),
    },
    {
      id: "services",
      name: "Services",
      columns: ["service", "works at", "tested at", "factor", "hottest", "carries"],
      rows: c.services.flatMap((r) =>
        r.duty
          ? [
              {
                id: r.id,
                cells: [
                  r.name,
                  bar(r.duty.working_kpa),
                  bar(r.duty.test_kpa),
                  String(r.duty.design_factor),
                  `${r.duty.hot_c} °C`,
                  c.fluids.find((f) => f.id === r.duty?.fluid)?.name ?? "",
                ],
                source: r.duty.source,
              },
            ]
          : [],
      ),
    },
    {
      id: "benders",
      name: "Benders",
      columns: ["tool", "kind", "tube", "radius", "up to"],
      rows: c.benders.map((r) => ({
        id: r.id,
        cells: [
          r.name,
          c.tool_kinds.find((k) => k.id === r.kind)?.mount ?? "",
          r.size,
          r.radius_mm == null ? "any" : mm(r.radius_mm),
          `${r.greatest_angle_deg}°`,
        ],
        source: r.source,
      })),
    },
    {
      id: "wrenches",
      name: "Wrenches",
      columns: ["wrench", "across flats"],
      rows: c.wrenches.map((r) => ({ id: r.name, cells: [r.name, mm(r.mm)], source: r.source })),
    },
    {
      id: "rules",
      name: "Rules and limits",
      columns: ["rule", "says"],
      rows: [
        ...c.limits.map((r) => ({ id: r.id, cells: [r.id.replaceAll("_", " "), String(r.value)], source: r.source })),
        ...c.advice.map((r) => ({
          id: `advice ${r.id}`,
          cells: [r.id.replaceAll("_", " "), r.text],
          source: r.source,
        })),
      ],
    },
  ];
}

/** Every word of the search must be somewhere in the row. */
export function matches(row: Row, wanted: string): boolean {
  const text = [...row.cells, row.source.kind, row.source.text].join(" ").toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** How many rows rest on each kind of source, the most first: what stands from memory is said, not hidden. */
export function sourcesOf(tables: Pick<Table, "rows">[]): [kind: Source["kind"], rows: number][] {
  const counted = new Map<Source["kind"], number>();
  for (const table of tables)
    for (const row of table.rows) counted.set(row.source.kind, (counted.get(row.source.kind) ?? 0) + 1);
  return [...counted].sort((a, b) => b[1] - a[1]);
}
