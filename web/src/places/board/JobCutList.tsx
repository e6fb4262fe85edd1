import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Unit } from "../../api/types";
import { useNotice } from "../../ui/notice";
import { stockChanged } from "../../api/stockChanged";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";
import { CutBars } from "./CutBars";
import { LinesToCut } from "./LinesToCut";

/** What is cut from what for this job: the shop's own sticks, coils and offcuts first. */
export function JobCutList({ jobId, unit }: { jobId: string; unit: Unit }) {
  const client = useQueryClient();
  const notice = useNotice();
  const [ticked, setTicked] = useState<string[] | null>(null);
  const job = { job_id: jobId };
  const cuts = useQuery({
    queryKey: ["cuts", jobId, ticked],
    queryFn: () =>
      take(api.GET("/api/jobs/{job_id}/cuts", { params: { path: job, query: { pieces: ticked?.join(",") } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  if (cuts.isError) return <Box role="alert">{sentence(cuts.error)}</Box>;
  if (!cuts.data) return null;
  if (cuts.data.lines.length === 0)
    return <Box sx={{ py: 2, color: "var(--second)" }}>No tube of this job is ready to be cut.</Box>;
  const { lines, tubes, stamp } = cuts.data;
  const listed = ticked ?? lines.filter((line) => line.in_list).map((line) => line.piece);

  const again = () => stockChanged(client);
  const failed = (error: unknown) => {
    notice({ text: sentence(error) });
    void again();
  };
  const takeBack = (id: string) =>
    void take(api.DELETE("/api/cuts/{cutting_id}", { params: { path: { cutting_id: id } } }))
      .then(async ({ counted }) => {
        await again();
        notice({
          small: counted.length === 0,
          text: counted.length
            ? `The cuts are taken back. ${counted.join(", ")} stayed as counted since; look whether that still holds.`
            : "The cuts are taken back: the stock is as before them.",
        });
      })
      .catch(failed);
  const cut = () =>
    void take(api.POST("/api/jobs/{job_id}/cuts", { params: { path: job }, body: { pieces: listed, stamp } }))
      .then(async ({ id }) => {
        setTicked(null);
        await again();
        notice({
          text: "The stock is as after the cuts; new offcuts have their labels under Stock.",
          undo: () => takeBack(id),
        });
      })
      .catch(failed);

  return (
    <Box component="section" aria-label="Cut list" sx={{ mt: 1 }}>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 2, borderBottom: "2px solid var(--ink)" }}>
        <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, flex: 1 }}>
          Cut list
        </Box>
        {tubes.length > 0 && (
          <Button size="small" onClick={cut} disabled={cuts.isPlaceholderData}>
            These are cut
          </Button>
        )}
      </Box>
      <LinesToCut lines={lines} listed={listed} unit={unit} tick={setTicked} takeBack={takeBack} />
      {tubes.map((tube) => (
        <CutBars key={tube.tube} tube={tube} lines={lines} unit={unit} />
      ))}
      <Box sx={{ mt: 1, fontSize: 14, color: "var(--second)" }}>
        {tubes.length === 0
          ? "Tick a line to see what it is cut from."
          : `Every cut takes ${sayLength(cuts.data.kerf_mm, "mm")}; from ${sayLength(cuts.data.least_kept_mm, "mm")} on what is left is labelled and kept.`}
      </Box>
    </Box>
  );
}
