import type { Line } from "../api/types";

/** What was typed and not yet acknowledged, kept so that a reload or a crash loses nothing. */
interface Draft {
  version: number;
  document: Line;
  base: Line | null;
}

const key = (lineId: string) => `bendrel.draft.${lineId}`;

export function keepDraft(lineId: string, draft: Draft): void {
  try {
    localStorage.setItem(key(lineId), JSON.stringify(draft));
  } catch {
    // a full or forbidden store only loses this second safety net
  }
}

export function dropDraft(lineId: string): void {
  localStorage.removeItem(key(lineId));
}

export function readDraft(lineId: string): Draft | null {
  const kept = localStorage.getItem(key(lineId));
  if (!kept) return null;
  try {
    return JSON.parse(kept) as Draft;
  } catch {
    return null;
  }
}
