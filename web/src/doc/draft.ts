import { api, Refusal, take } from "../api/client";
import { keep, kept } from "../api/kept";
import type { Line } from "../api/types";

/** What was typed and not yet acknowledged, kept so that a reload or a crash loses nothing. */
export interface Draft {
  version: number;
  document: Line;
  base: Line | null;
}

/** A place for one thing that was typed. */
export interface Shelf<T> {
  keep: (left: T) => void;
  drop: () => void;
  read: () => T | null;
}

export type Drafts = Shelf<Draft>;

const keyOf = (lineId: string) => `bendrel.draft.${lineId}`;
const asideKey = (lineId: string) => `${keyOf(lineId)}.unreadable`;

/** A draft becomes one of today before its line is opened, whoever kept it. One that cannot be read any more is put
 * aside under another name: the line opens as it was saved. */
export async function bringUpToDate(lineId: string): Promise<void> {
  const key = keyOf(lineId);
  const text = kept(key);
  if (text === null) return;
  try {
    const draft = JSON.parse(text) as { version: number; document: Record<string, unknown>; base: unknown };
    if (typeof draft.version !== "number") throw new Error("no draft");
    const now = (body: Record<string, unknown>) => take(api.POST("/api/up-to-date", { body }));
    const base = draft.base ? await now(draft.base as Record<string, unknown>) : null;
    keep(key, JSON.stringify({ version: draft.version, document: await now(draft.document), base }));
  } catch (error) {
    // a server that is away says nothing of the draft
    if (error instanceof Refusal && (error.status === 0 || error.status >= 500)) throw error;
    putAside(lineId);
  }
}

/** Take the draft of a line out of the way, so that the line opens as it was saved. */
export function putAside(lineId: string): void {
  const text = kept(keyOf(lineId));
  if (text === null) return;
  keep(asideKey(lineId), text);
  keep(keyOf(lineId), null);
}

/** The draft that was put aside, or null. */
export const asideOf = (lineId: string): string | null => kept(asideKey(lineId));
export const dropAside = (lineId: string): void => keep(asideKey(lineId), null);

/** A place in the browser's own store; a full or forbidden one only loses this second net. */
export function shelfOf<T>(key: string): Shelf<T> {
  return {
    keep: (left) => keep(key, JSON.stringify(left)),
    drop: () => keep(key, null),
    read: () => {
      try {
        return JSON.parse(kept(key) ?? "null") as T | null;
      } catch {
        return null;
      }
    },
  };
}

/** The draft of one line. */
export const draftsOf = (lineId: string): Drafts => shelfOf(keyOf(lineId));
