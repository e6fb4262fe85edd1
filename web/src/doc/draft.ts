import type { Line } from "../api/types";

/** What was typed and not yet acknowledged, kept so that a reload or a crash loses nothing. */
export interface Draft {
  version: number;
  document: Line;
  base: Line | null;
}

export interface Drafts {
  keep: (draft: Draft) => void;
  drop: () => void;
  read: () => Draft | null;
}

/** The draft of one line in the browser's own store; a full or forbidden one only loses this second net. */
export function draftsOf(lineId: string): Drafts {
  const key = `bendrel.draft.${lineId}`;
  const attempt = <T>(work: () => T): T | null => {
    try {
      return work();
    } catch {
      return null;
    }
  };
  return {
    keep: (draft) => void attempt(() => localStorage.setItem(key, JSON.stringify(draft))),
    drop: () => void attempt(() => localStorage.removeItem(key)),
    read: () => attempt(() => JSON.parse(localStorage.getItem(key) ?? "null") as Draft | null),
  };
}
