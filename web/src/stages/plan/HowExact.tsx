import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useSelection } from "../../doc/select";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { sayAngle, sayLength } from "../../format/units";
import type { Unit } from "../../api/types";

/** How often end B drops into its port, what matters most, and what the bends do to the tube. */
export function HowExact({ view, unit }: { view: PlanView; unit: Unit }) {
  const { bench, part } = view;
  const { bend: chosen, choose } = useSelection();
  if (!bench || !part || part.bends.length === 0) return null;
  const { exact } = bench;
  const share = Math.round(exact.share * 100);
  const best = exact.gains[0];
  const flattest = bench.sections.reduce(
    (most, section, k) => ((section?.flat ?? 0) > (bench.sections[most]?.flat ?? 0) ? k : most),
    0,
  );
  const shown = chosen === null ? flattest : chosen - 1;
  const section = bench.sections[shown];
  return (
    <Box component="section" aria-label="How exact" sx={{ mt: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        How exact
      </Typography>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
        <Box sx={{ font: `600 30px/1.1 ${condensed}` }}>{share} %</Box>
        <Box>
          of such parts land within {sayLength(exact.zone.mm, unit)} and {sayAngle(exact.zone.deg)} of port B
        </Box>
      </Box>
      <Box role="img" aria-label={`${share} of 100`} sx={{ height: 8, mt: 0.5, background: "var(--rule)" }}>
        <Box sx={{ height: 8, width: `${share}%`, background: "var(--tube)" }} />
      </Box>
      <Box data-inline sx={{ mt: 0.75, color: "var(--second)", fontSize: 15 }}>
        Half miss by more than {sayLength(exact.half_mm, unit)}, one in twenty by {sayLength(exact.most_mm, unit)}.{" "}
        {exact.worst != null && (
          <>
            <Box
              component="button"
              onClick={() => choose(exact.worst ?? null)}
              sx={{
                all: "unset",
                cursor: "pointer",
                borderBottom: "1px dotted var(--second)",
                color: "var(--ink)",
                "&:focus-visible": { outline: "3px solid var(--ink)" },
              }}
            >
              Bend {exact.worst}
            </Box>{" "}
            matters most ({Math.round(exact.worst_share * 100)} %).{" "}
          </>
        )}
        {best &&
          best.share > exact.share + 0.02 &&
          `With ${best.of} half as far out it would be ${Math.round(best.share * 100)} %.`}
      </Box>
      <Box sx={{ fontSize: 13, color: "var(--second)" }}>
        {exact.parts.toLocaleString("en")} parts made on paper; spread {exact.spread.angle_deg.toFixed(2)}°, plane{" "}
        {exact.spread.rotation_deg.toFixed(2)}°, marks {exact.spread.straight_mm.toFixed(2)} mm, radius{" "}
        {exact.spread.radius_mm.toFixed(2)} mm;{" "}
        {exact.spread.readings === 0
          ? "common practice, no readings of your own yet"
          : `${exact.spread.readings} ${exact.spread.readings === 1 ? "reading" : "readings"} of your own in it`}
        .
      </Box>
      {section && (
        <Box data-section={shown + 1} sx={{ mt: 1 }}>
          Bend {shown + 1} leaves {section.back_mm.toFixed(2)} mm of wall on its back, {section.inside_mm.toFixed(2)}{" "}
          inside; flat by about{" "}
          <Box
            component="span"
            sx={{ fontWeight: 600, color: section.flat > bench.flat_limit ? "var(--caution)" : "inherit" }}
          >
            {(section.flat * 100).toFixed(1)} %
          </Box>{" "}
          of the {(bench.flat_limit * 100).toFixed(0)} % this service takes.
        </Box>
      )}
    </Box>
  );
}
