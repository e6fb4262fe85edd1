import Box from "@mui/material/Box";
import type { JobSummary } from "../../api/types";
import { condensed } from "../../theme/theme";

/** Every paper of a job: one note over all of it, and what each line has. */
export function JobPapers({ job }: { job: JobSummary }) {
  if (job.lines.length === 0) return <Box sx={{ py: 2, color: "var(--second)" }}>No lines yet: no papers either.</Box>;
  return (
    <Box component="section" aria-label="Papers" sx={{ mt: 2, "& a": { color: "var(--ink)" } }}>
      <Paper to={`/api/jobs/${job.id}/handover.pdf`} text="One handover note for the owner, over the whole job" />
      {job.lines.map((line) => (
        <Box
          key={line.id}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(0, 1fr) repeat(3, auto)",
            columnGap: 3,
            alignItems: "baseline",
            borderTop: "1px solid var(--rule)",
            py: 0.5,
            "@media (max-width: 720px)": { gridTemplateColumns: "1fr" },
          }}
        >
          <Box sx={{ font: `600 19px ${condensed}`, overflowWrap: "anywhere" }}>{line.name}</Box>
          <Paper to={`/api/lines/${line.id}/sheet.pdf`} text="Build sheet" of={line.name} />
          <Paper to={`/api/lines/${line.id}/record.pdf`} text="Record" of={line.name} />
          <Paper to={`/api/lines/${line.id}/handover.pdf`} text="Handover note" of={line.name} />
        </Box>
      ))}
    </Box>
  );
}

function Paper({ to, text, of }: { to: string; text: string; of?: string }) {
  return (
    <Box sx={{ minHeight: 34, "@media (pointer: coarse)": { minHeight: 44, pt: 1 } }}>
      <a href={to} target="_blank" rel="noopener" aria-label={of ? `${text}, ${of}` : undefined}>
        {text}
      </a>
    </Box>
  );
}
