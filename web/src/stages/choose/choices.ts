import type { Catalogue, Line } from "../../api/types";
import { withSpan } from "../../doc/rows";

export function sizesIn(catalogue: Catalogue, material: string | undefined): string[] {
  return [...new Set(catalogue.tubes.filter((row) => row.material === material).map((row) => row.size))];
}

export const setBender = (line: Line, bender: string, id: string): Line => withSpan(line, { bender }, id);
