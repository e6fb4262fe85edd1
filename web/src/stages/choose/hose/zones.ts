import type { HoseStudy } from "../../../api/types";

type Windows = NonNullable<HoseStudy["windows"]>;

/** A stretch of lengths in mm, and whether the hose keeps its radius there. */
export interface Zone {
  from_mm: number;
  to_mm: number;
  is: "keeps" | "tight";
}

/** The greatest length that is shown: room beyond the first that is right and beyond the one chosen, so that a
 * narrow window is not lost among lengths that nobody takes. */
export function shownTo({ windows, over }: Windows, length: number | null): number {
  const most = over.at(-1)?.length_mm ?? 1;
  const first = over[0]?.length_mm ?? 0;
  const wanted = Math.max(windows[0]?.most.length_mm ?? most, length ?? 0);
  return Math.min(most, first + (wanted - first) * 1.35);
}

/** Every stretch between two lengths, in order and without a gap. */
export function zonesOf({ windows }: Windows, first: number, last: number): Zone[] {
  const zones: Zone[] = [];
  let at = first;
  const until = (mm: number, is: Zone["is"]) => {
    const to = Math.min(last, mm);
    if (to > at) zones.push({ from_mm: at, to_mm: to, is });
    at = Math.max(at, to);
  };
  for (const one of windows) {
    until(one.least.length_mm, "tight");
    until(one.most.length_mm, "keeps");
  }
  until(last, "tight");
  return zones;
}
