import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { sayLength } from "../../format/units";
import { sheetOf } from "../../workspace/sheet";

/** The hoses of the line: each is made at the bench, or from its own sheet. */
export function Hoses({ editor, view }: { editor: LineEditor; view: PlanView }) {
  const { document: line, opened } = editor;
  const hoses = line.spans.filter((span) => span.kind === "hose");
  if (hoses.length === 0) return null;
  return (
    <Box component="section" aria-label="Hoses" sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {hoses.length === 1 ? "The hose" : "The hoses"}
      </Typography>
      {hoses.map((hose) => {
        const placed = view.plan?.chosen?.pieces.hoses.find((one) => one.stands.span === hose.id);
        const name = placed ? `${placed.hose_class.name} ${placed.hose.size}` : "hose";
        const length = placed?.length_mm == null ? "length not known" : sayLength(placed.length_mm, line.unit);
        return (
          <Box
            key={hose.id}
            sx={{
              display: "flex",
              flexWrap: "wrap",
              columnGap: 2,
              alignItems: "center",
              py: 0.5,
              borderTop: "1px solid var(--rule)",
              "& a": { color: "var(--ink)", py: 0.75, "@media (pointer: coarse)": { py: 1.5 } },
            }}
          >
            <Box sx={{ flex: "1 1 220px" }}>
              {name}, {length}
            </Box>
            <Link to={`/lines/${opened.id}/hose/${hose.id}`} aria-label={`Make ${name} at the bench`}>
              At the bench
            </Link>
            <a
              href={sheetOf(opened.id, hose.id)}
              target="_blank"
              rel="noopener"
              aria-label={`Print the sheet of ${name}`}
            >
              Its sheet
            </a>
          </Box>
        );
      })}
    </Box>
  );
}
