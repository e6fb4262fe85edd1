import { useQuery } from "@tanstack/react-query";
import { api, take } from "../api/client";
import type { Catalogue } from "../api/types";

/** What can be chosen; it does not change while the application runs. */
export function useCatalogue(): Catalogue | null {
  const query = useQuery({
    queryKey: ["catalogue"],
    queryFn: () => take(api.GET("/api/catalogue")),
    staleTime: Infinity,
  });
  return query.data ?? null;
}
