import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { api, outliving, take } from "../api/client";
import type { OpenStripDown, SharedItem } from "../api/types";
import { shelfOf } from "./draft";
import { merged } from "./stripDown";
import { useVersioned } from "./useVersioned";
import type { Left, VersionedState } from "./versioned";
import { Versioned } from "./versioned";

type Items = readonly SharedItem[];

const PAUSE_MS = 500;

/** What comes off once for all lines of a job, and how to change it. */
export function useStripDown(jobId: string): VersionedState<OpenStripDown, Items> & { change: (items: Items) => void } {
  const client = useQueryClient();
  const store = useMemo(() => {
    const params = { path: { job_id: jobId } };
    const calls = {
      load: () => take(api.GET("/api/jobs/{job_id}/strip-down", { params })),
      save: async (version: number, items: Items) => {
        const body = { version, log: { items: [...items] } };
        const kept = await take(api.PUT("/api/jobs/{job_id}/strip-down", { params, ...outliving(body) }));
        for (const name of ["jobs", "kit"]) void client.invalidateQueries({ queryKey: [name] });
        return kept;
      },
      valueOf: (kept: OpenStripDown): Items => kept.log.items,
      settle: merged,
      shelf: () => shelfOf<Left<Items>>(`bendrel.strip-down.${jobId}`),
    };
    return new Versioned(calls, [] as Items, PAUSE_MS);
  }, [client, jobId]);
  const state = useVersioned(store);
  useEffect(() => {
    const again = () => void store.open();
    window.addEventListener("focus", again);
    return () => window.removeEventListener("focus", again);
  }, [store]);
  return { ...state, change: store.change };
}
