import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { JobSummary } from "../../api/types";
import { condensed } from "../../theme/theme";
import { sayDay } from "../../format/days";

/** Everything left for later in the whole shop, the nearest date first. */
export function OpenBoard({ jobs }: { jobs: readonly JobSummary[] }) {
  const items = jobs
    .flatMap((job) =>
      job.lines.flatMap((line) => line.open_items.map((item, k) => ({ item, line, job, key: `${line.id} ${k}` }))),
    )
    .sort((a, b) => (a.item.due || "9999").localeCompare(b.item.due || "9999"));
  if (items.length === 0) return null;
  const today = new Date().toISOString().slice(0, 10);
  return (
    <Box
      component="section"
      aria-label="Left for later"
      sx={{ mb: 3, borderLeft: "4px solid var(--caution)", pl: 1.5 }}
    >
      <Box component="h2" sx={{ m: 0, font: `600 19px ${condensed}` }}>
        Left for later
      </Box>
      {items.map(({ item, line, job, key }) => (
        <Box
          key={key}
          sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, py: 0.5, "& a": { color: "var(--ink)" } }}
        >
          <Box
            sx={{
              minWidth: 70,
              font: `600 17px ${condensed}`,
              color: item.due && item.due < today ? "var(--stop)" : "var(--ink)",
            }}
          >
            {item.due ? sayDay(item.due) : "no date"}
          </Box>
          <Box sx={{ flex: "1 1 240px", overflowWrap: "anywhere" }}>
            <Link to={`/lines/${line.id}/fit`}>
              {item.kind}
              {item.what && `: ${item.what}`}
            </Link>
          </Box>
          <Box>{item.person || "nobody yet"}</Box>
          <Box sx={{ color: "var(--second)" }}>
            {line.name}, {job.name}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
