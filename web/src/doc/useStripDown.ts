import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, take } from "../api/client";
import type { OpenStripDown, SharedItem } from "../api/types";
import { merged } from "./stripDown";
import type { VersionedState } from "./versioned";
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
        const kept = await take(api.PUT("/api/jobs/{job_id}/strip-down", { params, body, keepalive: true }));
        for (const name of ["jobs", "kit"]) void client.invalidateQueries({ queryKey: [name] });
        return kept;
      },
      valueOf: (kept: OpenStripDown): Items => kept.log.items,
      settle: merged,
    };
    return new Versioned(calls, [] as Items, PAUSE_MS);
  }, [client, jobId]);
  useEffect(() => {
    void store.open();
    const keep = () => void store.flush();
    const again = () => void store.open();
    window.addEventListener("pagehide", keep);
    window.addEventListener("focus", again);
    return () => {
      window.removeEventListener("pagehide", keep);
      window.removeEventListener("focus", again);
      keep();
    };
  }, [store]);
  return { ...useSyncExternalStore(store.listen, store.now), change: store.change };
}
