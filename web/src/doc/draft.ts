import { api, take } from "../api/client";
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

const NOW = 2;
const keyOf = (lineId: string) => `bendrel.draft.${lineId}`;

/** A draft that an earlier Bendrel kept becomes one of today, before its line is opened. One that cannot be read any more
 * is put aside under another name: the line opens as it was saved. */
export async function bringUpToDate(lineId: string): Promise<void> {
  const key = keyOf(lineId);
  const text = kept(key);
  if (text === null) return;
  try {
    const draft = JSON.parse(text) as { version: number; document: Record<string, unknown>; base: unknown };
    if (draft.document.version === NOW) return;
    const now = (body: Record<string, unknown>) => take(api.POST("/api/up-to-date", { body }));
    const base = draft.base ? await now(draft.base as Record<string, unknown>) : null;
    keep(key, JSON.stringify({ version: draft.version, document: await now(draft.document), base }));
  } catch {
    keep(`${key}.unreadable`, text);
    keep(key, null);
  }
}

/** The draft of one line in the browser's own store; a full or forbidden one only loses this second net. */
export function draftsOf(lineId: string): Drafts {
  const key = keyOf(lineId);
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
