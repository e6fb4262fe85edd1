import type { Catalogue, Line, LineEnd } from "../../api/types";
import { spanOf, withSpan } from "../../doc/rows";

export function sizesIn(catalogue: Catalogue, material: string | undefined): string[] {
  return [...new Set(catalogue.tubes.filter((row) => row.material === material).map((row) => row.size))];
}

/** Change material or size: bender and nuts follow to the same kind in the new size. */
export function setTube(line: Line, catalogue: Catalogue, wanted: { material?: string; size?: string }): Line {
  const span = spanOf(line);
  const was = catalogue.tubes.find((row) => row.id === span.tube);
  const material = wanted.material ?? was?.material;
  const size = wanted.size ?? was?.size;
  const tube =
    catalogue.tubes.find((row) => row.material === material && row.size === size) ??
    catalogue.tubes.find((row) => row.material === material);
  if (!tube) return line;
  const next = withSpan(line, { tube: tube.id });
  const plastic = catalogue.materials.find((row) => row.id === tube.material)?.family === "plastic";
  const bender = catalogue.benders.find((row) => row.id === span.bender);
  const tools = catalogue.benders.filter(
    (row) =>
      (row.size === tube.size || (catalogue.stands_in[tube.size] ?? []).includes(row.size)) && row.plastic === plastic,
  );
  const fitting = bender?.radius_mm == null ? bender : (tools.find((row) => row.name === bender.name) ?? tools[0]);
  if (tube.size === was?.size) return withSpan(next, { bender: fitting?.id ?? span.bender });
  const follow = (end: LineEnd): LineEnd => ({
    ...end,
    nut: end.nut ? usualNut(catalogue, end.fitting, tube.size) : null,
    proved: false,
  });
  return {
    ...withSpan(next, { bender: fitting?.id ?? span.bender }),
    end_a: follow(next.end_a),
    end_b: follow(next.end_b),
  };
}

export const setBender = (line: Line, id: string): Line => withSpan(line, { bender: id });

export function usualNut(catalogue: Catalogue, fitting: string, size: string): string | null {
  const own = catalogue.nuts.filter((row) => row.fitting === fitting);
  return (
    (own.find((row) => row.size === size) ?? own.find((row) => (catalogue.stands_in[size] ?? []).includes(row.size)))
      ?.id ?? null
  );
}
