import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useStripDown } from "../../doc/useStripDown";
import { SharedLog } from "../../workspace/SharedLog";

/** The one strip-down of a job, and what of it is still off. */
export function JobStripDown({ jobId }: { jobId: string }) {
  const log = useStripDown(jobId);
  const off = log.kept?.still_off ?? [];
  return (
    <Box component="section" aria-label="Strip-down" sx={{ mt: 1 }}>
      <Typography variant="h2">Strip-down</Typography>
      <Box role="status" sx={{ color: off.length > 0 ? "var(--caution)" : "var(--second)", mb: 1 }}>
        {off.length > 0 ? `Still off: ${off.join(" · ")}.` : "Nothing that the lines share is off."}
      </Box>
      <SharedLog jobId={jobId} log={log} />
    </Box>
  );
}
