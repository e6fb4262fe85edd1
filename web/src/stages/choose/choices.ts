import type { Catalogue, Line, TubeEnd } from "../../api/types";
import { spanOf, withSpan } from "../../doc/rows";

export function sizesIn(catalogue: Catalogue, material: string | undefined): string[] {
  return [...new Set(catalogue.tubes.filter((row) => row.material === material).map((row) => row.size))];
}

/** Change material or size: bender and nuts follow to the same kind in the new size. */
export function setTube(
  line: Line,
  catalogue: Catalogue,
  wanted: { material?: string; size?: string },
  id: string,
): Line {
  const span = spanOf(line, id);
  const was = catalogue.tubes.find((row) => row.id === span.tube);
  const material = wanted.material ?? was?.material;
  const size = wanted.size ?? was?.size;
  const tube =
    catalogue.tubes.find((row) => row.material === material && row.size === size) ??
    catalogue.tubes.find((row) => row.material === material);
  if (!tube) return line;
  const next = withSpan(line, { tube: tube.id }, id);
  const plastic = catalogue.materials.find((row) => row.id === tube.material)?.family === "plastic";
  const bender = catalogue.benders.find((row) => row.id === span.bender);
  const tools = catalogue.benders.filter(
    (row) =>
      (row.size === tube.size || (catalogue.stands_in[tube.size] ?? []).includes(row.size)) && row.plastic === plastic,
  );
  const fitting = bender?.radius_mm == null ? bender : (tools.find((row) => row.name === bender.name) ?? tools[0]);
  if (tube.size === was?.size) return withSpan(next, { bender: fitting?.id ?? span.bender }, id);
  const follow = (end: TubeEnd): TubeEnd => ({
    ...end,
    nut: end.nut ? usualNut(catalogue, end.fitting, tube.size) : null,
  });
  const ends = { end_a: follow(span.end_a), end_b: follow(span.end_b) };
  return {
    ...withSpan(next, { bender: fitting?.id ?? span.bender, ...ends }, id),
    port_a: { ...next.port_a, proved: false },
    port_b: { ...next.port_b, proved: false },
  };
}

export const setBender = (line: Line, bender: string, id: string): Line => withSpan(line, { bender }, id);

export function usualNut(catalogue: Catalogue, fitting: string, size: string): string | null {
  const own = catalogue.nuts.filter((row) => row.fitting === fitting);
  return (
    (own.find((row) => row.size === size) ?? own.find((row) => (catalogue.stands_in[size] ?? []).includes(row.size)))
      ?.id ?? null
  );
}
