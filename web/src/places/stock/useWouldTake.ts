import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, sentence, take } from "../../api/client";
import type { JobCuts } from "../../api/types";
import { sayLength } from "../../format/units";
import type { TakenFromBar } from "./StockBar";

/** What a job's cut list takes from each bar that lies here, by the bar's id. */
export function takenFrom(cuts: JobCuts): Map<string, TakenFromBar[]> {
  const lines = new Map(cuts.lines.map((line) => [line.piece, line]));
  const found = new Map<string, TakenFromBar[]>();
  for (const tube of cuts.tubes)
    for (const cut of tube.cuts.cuts) {
      const pieces = cut.pieces.map((id) => ({ line: lines.get(id)?.line ?? id, mm: lines.get(id)?.mm ?? 0 }));
      found.set(cut.bar, [...(found.get(cut.bar) ?? []), { pieces, left: cut.left_mm }]);
    }
  return found;
}

/** What would be cut for a job from what lies here, and in a sentence what would have to be bought. */
export function useWouldTake(jobId: string): { taken: Map<string, TakenFromBar[]>; said: string } {
  const cuts = useQuery({
    queryKey: ["cuts", jobId, "stock"],
    queryFn: () => take(api.GET("/api/jobs/{job_id}/cuts", { params: { path: { job_id: jobId } } })),
    enabled: jobId !== "",
  });
  return useMemo(() => {
    if (jobId === "") return { taken: new Map(), said: "" };
    if (cuts.isError) return { taken: new Map(), said: sentence(cuts.error) };
    if (!cuts.data) return { taken: new Map(), said: "" };
    const bought = cuts.data.tubes.reduce((sum, tube) => sum + tube.cuts.bought_mm, 0);
    const ready = cuts.data.lines.filter((line) => line.in_list).length;
    const what =
      ready === 0 ? "No line of it is ready to be cut." : `${ready} ${ready === 1 ? "line" : "lines"} to cut.`;
    return {
      taken: takenFrom(cuts.data),
      said: bought > 0 ? `${what} ${sayLength(bought, "mm")} would have to be bought.` : what,
    };
  }, [cuts.data, cuts.error, cuts.isError, jobId]);
}
