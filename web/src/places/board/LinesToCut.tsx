import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { CutLine, Unit } from "../../api/types";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";

interface Props {
  lines: readonly CutLine[];
  /** The pieces that are ticked. */
  listed: readonly string[];
  unit: Unit;
  tick: (lineIds: string[]) => void;
  takeBack: (cuttingId: string) => void;
}

/** Which lines are in the cut list, and why the others are not yet. */
export function LinesToCut({ lines, listed, unit, tick, takeBack }: Props) {
  const turn = (id: string) => tick(listed.includes(id) ? listed.filter((other) => other !== id) : [...listed, id]);
  return (
    <Box component="ul" aria-label="Lines in the cut list" sx={{ m: 0, p: 0, listStyle: "none" }}>
      {lines.map((line) => (
        <Box
          component="li"
          key={line.piece}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(200px, 340px) 90px 1fr auto",
            alignItems: "center",
            columnGap: 1.5,
            borderBottom: "1px solid var(--rule)",
            minHeight: 40,
            py: 0.25,
            "@media (max-width: 720px)": { gridTemplateColumns: "1fr auto" },
          }}
        >
          <Box
            component="label"
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 1,
              minHeight: 36,
              minWidth: 0,
              cursor: line.mm === null ? "default" : "pointer",
              "@media (pointer: coarse)": { minHeight: 44 },
            }}
          >
            <Box
              component="input"
              type="checkbox"
              checked={listed.includes(line.piece)}
              disabled={line.mm === null}
              onChange={() => turn(line.piece)}
              sx={{ width: 18, height: 18, flex: "none", accentColor: "var(--ink)" }}
            />
            <Box sx={{ minWidth: 0, overflowWrap: "anywhere" }}>{line.line}</Box>
          </Box>
          <Box sx={{ font: `600 18px ${condensed}`, whiteSpace: "nowrap" }}>
            {line.mm !== null && sayLength(line.mm, unit)}
          </Box>
          <Standing line={line} unit={unit} />
          {line.taken && (
            <Button
              size="small"
              variant="text"
              aria-label={`Not cut after all: ${line.line}`}
              onClick={() => line.taken && takeBack(line.taken.cutting_id)}
            >
              Not cut after all
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}

function Standing({ line, unit }: { line: CutLine; unit: Unit }) {
  const { taken, mm, stops } = line;
  if (mm === null) return <Box sx={{ color: "var(--second)" }}>not planned yet</Box>;
  if (taken?.short)
    return (
      <Box
        sx={{ color: "var(--stop)" }}
      >{`${sayLength(taken.mm, unit)} was cut from ${taken.source}: too short for the plan as it is now`}</Box>
    );
  const open =
    stops === 0
      ? ""
      : `${stops === 1 ? "1 stop is" : `${stops} stops are`} open${taken ? "" : `: settle ${stops === 1 ? "it" : "them"} before cutting`}`;
  const said = [taken ? `${sayLength(taken.mm, unit)} cut from ${taken.source}` : "", open];
  return <Box sx={{ color: stops ? "var(--stop)" : "var(--second)" }}>{said.filter(Boolean).join("; ")}</Box>;
}
