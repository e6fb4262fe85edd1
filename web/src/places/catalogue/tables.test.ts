import { describe, expect, it } from "vitest";
import type { Row } from "./tables";
import { matches, sourcesOf } from "./tables";

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
