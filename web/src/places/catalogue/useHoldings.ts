import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { Held } from "../../api/types";

/** What the shop has, by reference. */
export function useHoldings(): Map<string, Held> {
  const query = useQuery({ queryKey: ["holdings"], queryFn: () => take(api.GET("/api/holdings")) });
  return new Map(query.data?.map((held) => [held.ref, held]));
}
