import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { Unit } from "../../api/types";
import { KitTable } from "../../ui/KitTable";
import { condensed } from "../../theme/theme";

/** Everything that the lines of a job still take, like things added up. */
export function JobKit({ jobId, unit }: { jobId: string; unit: Unit }) {
  const list = useQuery({
    queryKey: ["kit", "job", jobId],
    queryFn: () => take(api.GET("/api/jobs/{job_id}/kit", { params: { path: { job_id: jobId } } })),
    staleTime: 0,
  });
  if (!list.data) return null;
  return (
    <Box component="section" aria-label="Kit list" sx={{ mt: 1 }}>
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)" }}>
        Kit list
      </Box>
      <KitTable list={list.data} unit={unit} roomy />
    </Box>
  );
}
