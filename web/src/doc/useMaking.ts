import { useCallback, useMemo } from "react";
import { api, outliving, take } from "../api/client";
import type { Length, Making, MakingStanding, MakingState } from "../api/types";
import { shelfOf } from "./draft";
import { useAsked } from "./useAsked";
import { useVersioned } from "./useVersioned";
import { Versioned } from "./versioned";

export interface MakingEditor {
  making: Making;
  standing: MakingStanding;
  /** The standing is of readings that have changed since; its figures are not to be worked by. */
  reckoning: boolean;
  message: string;
  /** Keep a new state; it is shown at once and put back when it cannot be kept. */
  keep: (change: (state: MakingState) => MakingState) => void;
  /** The piece is planned for the gap that was read; throws the sentence where that cannot be. */
  gap: (across: Length) => Promise<void>;
  end: (outcome: "good" | "scrap" | "given up") => Promise<void>;
}

/** The making of a line: begun or gone on with, kept at every step. */
export function useMaking(lineId: string, span: string): { editor: MakingEditor | null; problem: string } {
  const store = useMemo(() => {
    const path = { line_id: lineId };
    const begin = () => take(api.POST("/api/lines/{line_id}/makings", { params: { path, query: { span } } }));
    const made: Versioned<Making, MakingState | null> = new Versioned<Making, MakingState | null>(
      {
        load: async () => {
          const id = made.now().kept?.id;
          const all = id ? await take(api.GET("/api/lines/{line_id}/makings", { params: { path } })) : [];
          return all.find((one) => one.id === id) ?? begin();
        },
        save: (version, state) => {
          const { kept } = made.now();
          if (!kept || !state) throw new Error("a making is kept after it was begun");
          const path = { making_id: kept.id };
          return take(api.PUT("/api/makings/{making_id}", { params: { path }, ...outliving({ version, state }) }));
        },
        valueOf: (kept) => kept.state,
        settle: (_base, _mine, theirs) => theirs,
        putsBack: true,
        shelf: (kept) => shelfOf(`bendrel.making.${kept.id}`),
      },
      null,
      0,
    );
    return made;
  }, [lineId, span]);
  const { kept, value, problem } = useVersioned(store);
  const making = useMemo(() => (kept && value ? { ...kept, state: value } : null), [kept, value]);

  const body = making && {
    document: making.document,
    span: making.span,
    made: making.state.made,
    offers: making.state.offers,
  };
  const told = useAsked(
    ["standing", body],
    (signal) => (body ? take(api.POST("/api/bench/standing", { body, signal })) : Promise.reject(new Error("begun"))),
    { wanted: body !== null, stays: true },
  );

  const keep = useCallback(
    (change: (state: MakingState) => MakingState) => {
      const was = store.now().value;
      if (was) store.change(change(was));
    },
    [store],
  );
  const gap = useCallback(
    async (across: Length) => {
      await store.flush();
      const { kept } = store.now();
      if (!kept) return;
      const params = { path: { making_id: kept.id } };
      const body = { version: kept.version, across };
      await store.open(() => take(api.POST("/api/makings/{making_id}/gap", { params, body })));
    },
    [store],
  );
  const end = useCallback(
    async (outcome: "good" | "scrap" | "given up") => {
      await store.flush();
      const id = store.now().kept?.id;
      if (!id) return;
      const params = { path: { making_id: id } };
      await store.open(() => take(api.POST("/api/makings/{making_id}/end", { params, body: { outcome } })));
    },
    [store],
  );
  // what was read is kept also where what follows from it is not known
  const message = problem || told.problem;
  const standing = told.answer;
  const reckoning = told.asking || told.problem !== "";
  return {
    editor: making && standing ? { making, standing, reckoning, message, keep, gap, end } : null,
    problem: standing ? "" : message,
  };
}
