import type { QueryClient } from "@tanstack/react-query";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef } from "react";
import { api, take } from "../api/client";
import type { Catalogue } from "../api/types";

const CATALOGUE = ["catalogue"];

const versionOf = (client: QueryClient): number => client.getQueryData<Catalogue>(CATALOGUE)?.ways_version ?? 0;

/** Keep the shop’s answer where practitioners differ; one after the other, each on what the one before has left. */
export function useWays(): (answers: Record<string, string>) => Promise<void> {
  const client = useQueryClient();
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  return useCallback(
    (answers) => {
      const kept = queue.current.then(async () => {
        try {
          const ways = await take(
            api.PUT("/api/preferences", { params: { query: { version: versionOf(client) } }, body: answers }),
          );
          client.setQueryData<Catalogue>(CATALOGUE, (was) =>
            was ? { ...was, preferences: ways.answers, own_figures: ways.figures, ways_version: ways.version } : was,
          );
        } finally {
          await client.invalidateQueries({ queryKey: CATALOGUE });
        }
      });
      queue.current = kept.catch(() => undefined);
      return kept;
    },
    [client],
  );
}
