import type { RigidSpan } from "../api/types";

type Order = RigidSpan["order"];

/** "A1 A2 B3" as the document keeps it, by the rows of the bends; null for what names no bend. */
export function turnsOf(text: string, ids: readonly string[]): Order | null {
  const made: Order = [];
  for (const word of text.split(/[\s,]+/).filter(Boolean)) {
    const [, held, number] = /^([ab])(\d+)$/i.exec(word) ?? [];
    const row = ids[Number(number) - 1];
    if (!held || row === undefined) return null;
    made.push({ row, held: held.toUpperCase() === "A" ? "A" : "B" });
  }
  return made;
}

/** An order as people write it: the end in the clamp and the number of the bend. */
export const writtenOrder = (order: Order, ids: readonly string[]): string =>
  order.map(({ row, held }) => `${held}${ids.indexOf(row) + 1}`).join(" ");
