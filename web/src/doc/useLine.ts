import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { api, take } from "../api/client";
import type { Line, OpenLine } from "../api/types";
import { draftsOf } from "./draft";
import type { LineState } from "./store";
import { LineStore } from "./store";
import { plans } from "./usePlan";

export type { Conflict, SaveState } from "./store";

export interface LineEditor extends LineState {
  edit: (change: (line: Line) => Line) => void;
  undo: () => void;
  redo: () => void;
  settle: (document: Line) => void;
  retry: () => void;
  /** Save what waits now, as an undo step of its own. */
  flush: () => Promise<void>;
  /** Have the server change the saved line; returns why not, or nothing. */
  ask: (call: (version: number) => Promise<OpenLine>) => Promise<string>;
  /** The tube that is worked on, by its id; blank for a line without one. */
  tube: string;
}

/** A line being edited, by the store that keeps it. */
export function useLine(first: OpenLine): Omit<LineEditor, "tube"> {
  const [store] = useState(() => {
    const at = { params: { path: { line_id: first.id } } };
    return new LineStore(
      first,
      {
        save: (version, document) => take(api.PUT("/api/lines/{line_id}", { ...at, body: { version, document } })),
        step: (way, version) =>
          take(
            way === "undo"
              ? api.POST("/api/lines/{line_id}/undo", { ...at, body: { version } })
              : api.POST("/api/lines/{line_id}/redo", { ...at, body: { version } }),
          ),
        foresee: plans.foresee,
      },
      draftsOf(first.id),
    );
  });
  const state = useSyncExternalStore(store.subscribe, store.getState);

  useEffect(() => {
    const leave = () => void store.flush();
    leave();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [store]);

  // one object for as long as nothing in it changes, so that what hangs on it is not drawn again
  return useMemo(
    () => ({
      ...state,
      edit: store.edit,
      undo: store.undo,
      redo: store.redo,
      settle: store.settle,
      retry: () => void store.retry(),
      flush: store.flush,
      ask: store.ask,
    }),
    [state, store],
  );
}
