import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { JobSummary } from "../../api/types";
import { condensed } from "../../theme/theme";
import { localTime } from "../../doc/proving";
import { sayDay } from "../../format/days";

interface Row {
  key: string;
  day: string;
  to: string;
  what: string;
  beside: string;
  line: string;
  job: string;
}

/** Everything left for later in the whole shop, and the second looks that are due; the nearest date first. */
export function OpenBoard({ jobs }: { jobs: readonly JobSummary[] }) {
  const lines = jobs.flatMap((job) => job.lines.map((line) => ({ job, line })));
  const left = lines.flatMap(({ job, line }) =>
    line.open_items.map((item, k) => ({
      key: `${line.id} ${k}`,
      day: item.due,
      to: `/lines/${line.id}/fit`,
      what: item.what ? `${item.kind}: ${item.what}` : item.kind,
      beside: item.person || "nobody yet",
      line: line.name,
      job: job.name,
    })),
  );
  const due = lines.flatMap(({ job, line }) =>
    line.follow_ups.map((one) => ({
      key: `${line.id} ${one.id}`,
      day: one.day,
      to: `/lines/${line.id}/prove`,
      what: one.what,
      beside: [one.km && `${one.km} km`, one.hours && `${one.hours} h`, one.cycles && `${one.cycles} heat cycles`]
        .filter(Boolean)
        .join(" or "),
      line: line.name,
      job: job.name,
    })),
  );
  return (
    <>
      <Rows title="Left for later" rows={left} />
      <Rows title="To come back to" rows={due} />
    </>
  );
}

function Rows({ title, rows }: { title: string; rows: readonly Row[] }) {
  if (rows.length === 0) return null;
  const sorted = [...rows].sort((a, b) => (a.day || "9999").localeCompare(b.day || "9999"));
  const today = localTime(new Date()).slice(0, 10);
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3, borderLeft: "4px solid var(--caution)", pl: 1.5 }}>
      <Box component="h2" sx={{ m: 0, font: `600 19px ${condensed}` }}>
        {title}
      </Box>
      {sorted.map((row) => {
        const late = row.day !== "" && row.day < today;
        return (
          <Box
            key={row.key}
            data-late={late}
            sx={{
              display: "flex",
              flexWrap: "wrap",
              alignItems: "baseline",
              columnGap: 2,
              py: 0.5,
              "& a": { color: "var(--ink)" },
            }}
          >
            <Box sx={{ minWidth: 70, font: `600 17px ${condensed}`, color: late ? "var(--stop)" : "var(--ink)" }}>
              {row.day ? sayDay(row.day) : "no date"}
              {late && ", late"}
            </Box>
            <Box sx={{ flex: "1 1 240px", overflowWrap: "anywhere" }}>
              <Link to={row.to}>{row.what}</Link>
            </Box>
            <Box>{row.beside}</Box>
            <Box sx={{ color: "var(--second)" }}>
              {row.line}, {row.job}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
