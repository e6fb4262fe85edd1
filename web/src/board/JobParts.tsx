import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { LineSummary } from "../api/types";
import { condensed } from "../theme/theme";

/** What has to be bought for all lines of a job. */
export function JobParts({ lines }: { lines: readonly LineSummary[] }) {
  const rows = lines.flatMap((line) => line.parts.map((part, k) => ({ line, part, key: `${line.id} ${k}` })));
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-label="Parts to get" sx={{ mt: 4 }}>
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)" }}>
        Parts to get
      </Box>
      {rows.map(({ line, part, key }) => (
        <Box key={key} sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, borderBottom: "1px solid var(--rule)", py: 0.5, "& a": { color: "var(--ink)" } }}>
          <Box sx={{ font: `600 17px ${condensed}`, minWidth: 40 }}>{part.count} ×</Box>
          <Box sx={{ flex: "1 1 240px", overflowWrap: "anywhere" }}>{part.what}</Box>
          <Box sx={{ color: "var(--second)" }}>{part.because}</Box>
          <Link to={`/lines/${line.id}/remove`}>{line.name}</Link>
        </Box>
      ))}
    </Box>
  );
}
