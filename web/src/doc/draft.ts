import { keep, kept } from "../api/kept";
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
  return {
    keep: (draft) => keep(key, JSON.stringify(draft)),
    drop: () => keep(key, null),
    read: () => {
      try {
        return JSON.parse(kept(key) ?? "null") as Draft | null;
      } catch {
        return null;
      }
    },
  };
}
