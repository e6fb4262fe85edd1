import Box from "@mui/material/Box";
import { useEffect } from "react";
import { Link, useNavigate } from "react-router";
import type { JobSummary } from "../../api/types";
import { condensed } from "../../theme/theme";
import type { JobPart } from "./jobParts";
import { JOB_PARTS } from "./jobParts";

/** The parts of a job, one at a time: Alt and a digit goes to each. */
export function JobTabs({ job, part }: { job: JobSummary; part: JobPart }) {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const to = JOB_PARTS[Number(event.key) - 1];
      if (!event.altKey || event.ctrlKey || event.metaKey || !to) return;
      event.preventDefault();
      void navigate(at(job.id, to.id));
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [job.id, navigate]);
  const said: Partial<Record<JobPart, string>> = {
    lines: String(job.lines.length || ""),
    "strip-down": job.still_off > 0 ? `${job.still_off} off` : "",
  };
  return (
    <Box
      component="nav"
      aria-label="Parts of the job"
      sx={{
        display: "grid",
        gridTemplateColumns: "repeat(7, 1fr)",
        "@media (max-width: 900px)": { gridTemplateColumns: "repeat(4, 1fr)" },
        borderBottom: "2px solid var(--ink)",
      }}
    >
      {JOB_PARTS.map(({ id, name }) => (
        <Box
          key={id}
          component={Link}
          to={at(job.id, id)}
          aria-current={id === part ? "page" : undefined}
          sx={{
            minHeight: 44,
            px: 1.5,
            display: "flex",
            alignItems: "center",
            justifyContent: "space-between",
            font: `600 20px ${condensed}`,
            textDecoration: "none",
            borderRight: "1px solid var(--rule)",
            background: id === part ? "var(--ink)" : "transparent",
            color: id === part ? "var(--paper)" : "var(--ink)",
            "&:focus-visible": { outline: "3px solid var(--action)", outlineOffset: -4 },
          }}
        >
          {name}
          <Box
            component="span"
            sx={{ fontSize: 15, fontWeight: 400, color: id === part ? "var(--paper)" : "var(--second)" }}
          >
            {said[id]}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

const at = (job: string, part: JobPart) => (part === "lines" ? `/jobs/${job}` : `/jobs/${job}/${part}`);
