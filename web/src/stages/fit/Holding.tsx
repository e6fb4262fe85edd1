import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Clips, Unit } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import { useSelection } from "../../doc/select";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";

/** Where the line is held, from end A; touch a place to see it on the strip. */
export function Holding({ clips, unit }: { clips: Clips; unit: Unit }) {
  const { light, lit } = useSelection();
  const what = clips.old ? "At the places noted" : (clips.clip?.name ?? "Clips");
  return (
    <Box component="section" aria-label="Clips" sx={{ mb: 1.5 }}>
      <Typography variant="h2">Clips</Typography>
      <Box>
        {what}, from end A; loose at first, then tightened from one end. No more than {sayLength(clips.apart_mm, unit)}{" "}
        apart.
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, py: 0.75 }}>
        {clips.places_mm.map((at) => {
          const key = `clip ${at}`;
          return (
            <Box
              key={key}
              component="button"
              aria-pressed={lit?.key === key}
              onClick={() =>
                light(lit?.key === key ? null : { span: "", from: at - 4, to: at + 4, severity: "note", key })
              }
              sx={{
                all: "unset",
                cursor: "pointer",
                px: 1,
                minHeight: 32,
                display: "grid",
                alignItems: "center",
                border: "1px solid var(--rule)",
                font: `600 17px ${condensed}`,
                "&[aria-pressed=true]": { background: "var(--ink)", color: "var(--paper)" },
                "&:focus-visible": { outline: "3px solid var(--ink)" },
                "@media (pointer: coarse)": { minHeight: 44 },
              }}
            >
              {sayLength(at, unit)}
            </Box>
          );
        })}
      </Box>
      <SourceLine source={clips.source} />
    </Box>
  );
}
