import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, take } from "../api/client";
import type { SharedItem } from "../api/types";
import type { StripDownState } from "./stripDown";
import { StripDownStore } from "./stripDown";

/** What comes off once for all lines of a job, and how to change it. */
export function useStripDown(jobId: string): StripDownState & { change: (items: readonly SharedItem[]) => void } {
  const client = useQueryClient();
  const store = useMemo(() => {
    const params = { path: { job_id: jobId } };
    return new StripDownStore({
      load: () => take(api.GET("/api/jobs/{job_id}/strip-down", { params })),
      save: async (version, items) => {
        const body = { version, log: { items: [...items] } };
        const kept = await take(api.PUT("/api/jobs/{job_id}/strip-down", { params, body, keepalive: true }));
        for (const name of ["jobs", "kit"]) void client.invalidateQueries({ queryKey: [name] });
        return kept;
      },
    });
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
  return { ...useSyncExternalStore(store.listen, store.now), change: (items) => store.change(items) };
}
