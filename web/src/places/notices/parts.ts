export interface Part {
  title: string;
  /** Package, version and licence. */
  rows: string[][];
}

/** The tables of NOTICES.md by their titles. */
export function partsOf(page: string): Part[] {
  return page
    .split(/^## /m)
    .slice(1)
    .map((part) => {
      const [title = "", ...lines] = part.split("\n");
      const rows = lines.filter((line) => line.startsWith("| ")).slice(1);
      return { title, rows: rows.map((row) => row.slice(2, -2).split(" | ")) };
    });
}
