import { useQuery } from "@tanstack/react-query";
import { api, take } from "../api/client";
import type { Catalogue } from "../api/types";

/** What can be chosen; asked anew when the shop changes an entry of its own. */
export function useCatalogue(): Catalogue | null {
  const query = useQuery({
    queryKey: ["catalogue"],
    queryFn: () => take(api.GET("/api/catalogue")),
    staleTime: Infinity,
  });
  return query.data ?? null;
}
