import Box from "@mui/material/Box";
import type { HoseSpan, HoseStudy, PlacedHose, Unit } from "../../../api/types";
import { sayClock, sayLength } from "../../../format/units";
import { condensed } from "../../../theme/theme";
import { LengthBar } from "./LengthBar";

interface Props {
  piece: HoseSpan;
  study: HoseStudy | null;
  placed: PlacedHose | undefined;
  /** The free length as the plan has it, which is newer than the study while that is under way. */
  length: number | null | undefined;
  unit: Unit;
  onLength: (mm: number) => void;
}

/** What a hose comes to, before anything is asked: its length among those that do, cut, radius, ends, clocking. */
export function HoseLead({ piece, study, placed, length, unit, onLength }: Props) {
  const laid = study?.laid;
  const rows = rowsOf(piece, study, placed, unit);
  return (
    <Box component="section" aria-label="What it comes to" aria-live="polite" sx={{ mb: 2 }}>
      {laid && study.windows && (
        <LengthBar
          windows={study.windows}
          needs={laid.needs_mm}
          onEnds={laid.on_ends_mm}
          length={length === undefined ? laid.length_mm : length}
          unit={unit}
          onLength={onLength}
        />
      )}
      {laid && !study.windows && <Box>It needs more than {sayLength(laid.least_mm + laid.on_ends_mm, unit)}.</Box>}
      {rows.length > 0 && (
        <Box
          component="dl"
          sx={{
            m: 0,
            mt: 1,
            display: "grid",
            gridTemplateColumns: "1fr",
            columnGap: 3,
            "@container panel (min-width: 560px)": { gridTemplateColumns: "1fr 1fr" },
          }}
        >
          {rows.map(({ name, value, lead }) => (
            <Box
              key={name}
              sx={{
                display: "flex",
                justifyContent: "space-between",
                alignItems: "baseline",
                gap: 1,
                minHeight: 32,
                borderBottom: "1px solid var(--rule)",
              }}
            >
              <Box component="dt" sx={{ color: "var(--second)" }}>
                {name}
              </Box>
              <Box
                component="dd"
                sx={{ m: 0, textAlign: "right", font: `600 ${lead ? 26 : 17}px ${condensed}`, whiteSpace: "nowrap" }}
              >
                {value}
              </Box>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}

interface Row {
  name: string;
  value: string;
  lead?: boolean;
}

function rowsOf(piece: HoseSpan, study: HoseStudy | null, placed: PlacedHose | undefined, unit: Unit): Row[] {
  const say = (mm: number) => sayLength(mm, unit);
  const rows: Row[] = [];
  const stays = piece.state === "stays";
  if (placed?.cut_mm != null && !stays) rows.push({ name: "cut the hose at", value: say(placed.cut_mm), lead: true });
  if (placed?.length_mm != null && placed.length_mm !== placed.cut_mm)
    rows.push({ name: "over all", value: say(placed.length_mm), lead: placed.cut_mm == null });
  const laid = study?.laid;
  if (laid?.radius_mm != null)
    rows.push({
      name: `tightest radius, ${say(laid.tightest_at_mm)} from A`,
      value: laid.radius_mm === 0 ? "it kinks" : `${say(laid.radius_mm)}, least ${say(laid.needs_mm)}`,
    });
  else if (piece.pattern && placed?.pattern?.radius_mm != null)
    rows.push({ name: `tightest of the ${placed.pattern.by}`, value: say(placed.pattern.radius_mm) });
  if (laid?.reach_mm != null) rows.push({ name: "stands off the straight line", value: say(laid.reach_mm) });
  const {
    shorter_mm: shorter,
    longer_mm: longer,
    overall_mm: overall,
    clocked,
    clock_deg: clock,
  } = study?.assembly ?? {};
  if (shorter != null && longer != null && overall != null && !stays)
    rows.push({ name: "under pressure", value: `${say(overall - shorter)} to ${say(overall + longer)}` });
  if (piece.joined !== "clamps")
    for (const end of ["a", "b"] as const) {
      const angle = piece[`angle_${end}`];
      rows.push({ name: `end ${end.toUpperCase()}`, value: angle === 0 ? "straight" : `${angle}°` });
    }
  if (clocked && clock != null) rows.push({ name: "B stands, seen from A", value: sayClock(clock) });
  return rows;
}
