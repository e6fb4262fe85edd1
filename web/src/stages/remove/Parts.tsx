import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { PartToGet } from "../../api/types";
import { condensed } from "../../theme/theme";

/** What has to be bought, because it is not fit for use again or was not there. */
export function Parts({ parts }: { parts: readonly PartToGet[] }) {
  if (parts.length === 0) return null;
  return (
    <Box component="section" aria-label="Parts to get" sx={{ mt: 2 }}>
      <Typography variant="h2">Parts to get</Typography>
      {parts.map((part, k) => (
        <Box
          key={k}
          sx={{ display: "flex", gap: 1, borderBottom: "1px solid var(--rule)", py: 0.5, alignItems: "baseline" }}
        >
          <Box sx={{ font: `600 18px ${condensed}`, minWidth: 34 }}>{part.count} ×</Box>
          <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>{part.what}</Box>
          <Box sx={{ color: "var(--second)", fontSize: 14 }}>{part.because}</Box>
        </Box>
      ))}
    </Box>
  );
}
