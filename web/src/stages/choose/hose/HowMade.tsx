import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { HoseStudy, Unit } from "../../../api/types";
import { sayLength } from "../../../format/units";
import { condensed } from "../../../theme/theme";
import { Ticks } from "../../../ui/Ticks";
import { SourceLine } from "../../../ui/Working";
import { Elbows } from "./Elbows";

interface Props {
  assembly: HoseStudy["assembly"];
  unit: Unit;
  done: readonly string[];
  bench: string;
  sheet: string;
  onDone: (done: string[]) => void;
}

/** What the hose is made of or ordered by: ends, how two elbows stand, and the steps in their order. */
export function HowMade({ assembly, unit, done, bench, sheet, onDone }: Props) {
  const ticked = new Set(done);
  const rows: [string, string][] = [];
  if (assembly.name)
    rows.push([
      "Ends",
      `${assembly.name}${assembly.dash ? `, dash ${assembly.dash}` : ""}${assembly.nut ? `, nut ${assembly.nut}` : ""}`,
    ]);
  for (const one of assembly.ends)
    if (one.takes_mm != null)
      rows.push([
        `End ${one.end}`,
        `${one.angle === 0 ? "straight" : `${one.angle}°`}: adds ${sayLength(one.takes_mm, unit)}${one.stands_out_mm ? `, its seat stands ${sayLength(one.stands_out_mm, unit)} off the hose` : ""}`,
      ]);
  return (
    <Box component="section" aria-label="How it is made" sx={{ mt: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 20px ${condensed}` }}>
        How it is made
      </Box>
      <Box component="dl" sx={{ m: 0, display: "grid", gridTemplateColumns: "104px 1fr", gap: 0.5, columnGap: 1 }}>
        {rows.map(([name, value]) => (
          <Box key={name} sx={{ display: "contents" }}>
            <Box component="dt" sx={{ color: "var(--second)" }}>
              {name}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {value}
            </Box>
          </Box>
        ))}
      </Box>
      {assembly.clocked && assembly.clock_deg != null && (
        <Elbows degrees={assembly.clock_deg} words={assembly.clock_text} />
      )}
      <Ticks
        list={assembly.steps.map((step) => ({ id: step.id, text: step.text }))}
        done={ticked}
        onTick={(id, on) => onDone(on ? [...done, id] : done.filter((one) => one !== id))}
      />
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 1, "& a": { color: "var(--ink)" } }}>
        <Link to={bench}>Step by step at the bench</Link>
        <a href={sheet} target="_blank" rel="noopener">
          Print its sheet
        </a>
      </Box>
      <SourceLine source={assembly.source} />
    </Box>
  );
}
