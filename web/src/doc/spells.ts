import type { MakingState } from "../api/types";

/** Minutes worked so far, a running spell included. */
export function minutesOf(state: MakingState, now: number): number {
  const worked = state.spells.reduce(
    (sum, spell) => sum + Math.max(0, (spell.stop ? Date.parse(spell.stop) : now) - Date.parse(spell.start)),
    0,
  );
  return Math.round(worked / 60_000);
}

export const running = (state: MakingState): boolean => state.spells.at(-1)?.stop === "";

export function toggled(state: MakingState): MakingState {
  const spells = state.spells;
  const at = new Date().toISOString();
  if (running(state))
    return { ...state, spells: spells.map((spell, k) => (k === spells.length - 1 ? { ...spell, stop: at } : spell)) };
  return { ...state, spells: [...spells, { start: at, stop: "" }] };
}
