import type { QueryClient } from "@tanstack/react-query";

/** Everything that is said of the stock is asked for anew. */
export const stockChanged = (client: QueryClient) =>
  Promise.all(["stock", "cuts", "kit", "holdings"].map((name) => client.invalidateQueries({ queryKey: [name] })));
