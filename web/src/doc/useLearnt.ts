import { useQuery } from "@tanstack/react-query";
import { api, take } from "../api/client";
import type { Learnt } from "../api/types";

/** What the shop's own lines taught of joints and of fitting; nothing until it is known. */
export function useLearnt(): Learnt | undefined {
  return useQuery({ queryKey: ["learnt"], queryFn: () => take(api.GET("/api/shop/learnt")), staleTime: 60_000 }).data;
}
