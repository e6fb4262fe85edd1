import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, sentence, take } from "../api/client";
import type { JobCuts, Unit } from "../api/types";
import { useNotice } from "../app/notice";
import { condensed } from "../theme/theme";
import { sayLength } from "../units";

/** What is cut from what for this job: the shop's own sticks, coils and offcuts first. */
export function JobCutList({ jobId, unit }: { jobId: string; unit: Unit }) {
  const client = useQueryClient();
  const notice = useNotice();
  const path = { params: { path: { job_id: jobId } } };
  const cuts = useQuery({ queryKey: ["cuts", jobId], queryFn: () => take(api.GET("/api/jobs/{job_id}/cuts", path)) as Promise<unknown> as Promise<JobCuts> });
  const cut = () =>
    void take(api.POST("/api/jobs/{job_id}/cuts", path))
      .then(() => Promise.all([client.invalidateQueries({ queryKey: ["cuts"] }), client.invalidateQueries({ queryKey: ["stock"] })]))
      .then(() => notice({ text: "The stock is as after the cuts; new offcuts have their labels under Stock." }))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  if (!cuts.data || (cuts.data.tubes.length === 0 && cuts.data.waiting.length === 0)) return null;
  const { tubes, waiting } = cuts.data;
  return (
    <Box component="section" aria-label="Cut list" sx={{ mt: 4 }}>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 2, borderBottom: "2px solid var(--ink)" }}>
        <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, flex: 1 }}>
          Cut list
        </Box>
        {tubes.length > 0 && (
          <Button size="small" onClick={cut}>
            These are cut
          </Button>
        )}
      </Box>
      {tubes.map((tube) => (
        <Box key={tube.tube} data-cuts={tube.tube} sx={{ mt: 1.5 }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", flexWrap: "wrap", columnGap: 2 }}>
            <Box sx={{ fontWeight: 600 }}>{tube.tube_name}</Box>
            <Box sx={{ color: "var(--second)", fontSize: 15 }}>
              {sayLength(tube.cuts.opened_mm, unit)} begun{tube.cuts.bound_mm > 0 && `, at least ${sayLength(tube.cuts.bound_mm, unit)} must be`}; {sayLength(tube.cuts.waste_mm, unit)} lost
            </Box>
          </Box>
          {tube.cuts.cuts.map((item, k) => (
            <Box key={`${item.bar} ${k}`} sx={{ mt: 0.5 }}>
              <Box sx={{ fontSize: 15 }}>
                {tube.bars[item.bar] ?? item.bar}, {sayLength(item.bar_mm, unit)}
              </Box>
              <Box sx={{ display: "flex", height: 34, border: "1.5px solid var(--ink)" }}>
                {item.pieces.map((id) => {
                  const piece = tube.pieces[id];
                  return (
                    <Box key={id} title={`${piece?.line}: ${sayLength(piece?.mm ?? 0, unit)}`} sx={{ width: `${((piece?.mm ?? 0) / item.bar_mm) * 100}%`, background: "var(--hand)", borderRight: "2px solid var(--ink)", px: 0.5, overflow: "hidden", whiteSpace: "nowrap", textOverflow: "ellipsis", font: `500 16px/31px ${condensed}` }}>
                      {sayLength(piece?.mm ?? 0, unit)} {piece?.line}
                    </Box>
                  );
                })}
                <Box sx={{ flex: 1, px: 0.5, overflow: "hidden", whiteSpace: "nowrap", textOverflow: "ellipsis", color: "var(--second)", font: `500 16px/31px ${condensed}` }}>
                  {item.left_mm > 0 && `${sayLength(item.left_mm, unit)} ${item.kept ? "kept" : "scrap"}`}
                </Box>
              </Box>
            </Box>
          ))}
          {tube.cuts.missing.length > 0 && (
            <Box role="alert" sx={{ color: "var(--stop)" }}>
              Too long for any stick: {tube.cuts.missing.map((id) => tube.pieces[id]?.line).join(", ")}.
            </Box>
          )}
        </Box>
      ))}
      {waiting.length > 0 && <Box sx={{ mt: 1, color: "var(--second)" }}>Not planned yet, so not in it: {waiting.join(", ")}.</Box>}
      <Box sx={{ mt: 1, fontSize: 14, color: "var(--second)" }}>
        Every cut takes {sayLength(cuts.data.kerf_mm, "mm")}; from {sayLength(cuts.data.least_kept_mm, "mm")} on what is left is labelled and kept.
      </Box>
    </Box>
  );
}
