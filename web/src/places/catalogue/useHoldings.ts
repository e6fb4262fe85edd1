import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { Held } from "../../api/types";

/** What the shop has, by reference; null until it is known. */
export function useHoldings(): Map<string, Held> | null {
  const query = useQuery({ queryKey: ["holdings"], queryFn: () => take(api.GET("/api/holdings")) });
  return query.data ? new Map(query.data.map((held) => [held.ref, held])) : null;
}
