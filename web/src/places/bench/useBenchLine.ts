import { useQuery } from "@tanstack/react-query";
import { api, sentence, take } from "../../api/client";
import type { OpenLine } from "../../api/types";

/** The line as it is when the bench is entered: the workspace that is left has read it before what is ticked here. */
export function useBenchLine(lineId: string, bench: string): { line: OpenLine | undefined; problem: string } {
  const line = useQuery({
    queryKey: [bench, lineId],
    queryFn: () => take(api.GET("/api/lines/{line_id}", { params: { path: { line_id: lineId } } })),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  return { line: line.data, problem: line.isError ? sentence(line.error) : "" };
}
