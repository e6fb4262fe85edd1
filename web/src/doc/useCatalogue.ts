import { useQuery } from "@tanstack/react-query";
import { api, sentence, take } from "../api/client";
import type { Catalogue } from "../api/types";

/** What can be chosen, asked anew when the shop changes an entry of its own; and why it is not there. */
export function useCatalogueOr(): { catalogue: Catalogue | null; problem: string } {
  const query = useQuery({
    queryKey: ["catalogue"],
    queryFn: () => take(api.GET("/api/catalogue")),
    staleTime: Infinity,
  });
  return { catalogue: query.data ?? null, problem: query.error ? sentence(query.error) : "" };
}

export const useCatalogue = (): Catalogue | null => useCatalogueOr().catalogue;
