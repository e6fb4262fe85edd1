import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { BoughtPart, PartReading, Unit } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { usePlaneSchool } from "../../doc/usePlaneSchool";
import { Typed, Word } from "../../ui/Entry";
import { sayAngle, sayLength } from "../../format/units";
import { Section } from "../../ui/Section";
import { bendIds, removeAt, spanOf, withSpan } from "../../doc/rows";

const KINDS: PartReading["kind"][] = ["leg", "bend", "plane", "rim to rim", "whole length"];

/** A ready-bent part from a supplier, held against the old line by a few readings. */
export function Bought({ editor, view }: { editor: LineEditor; view: PlanView }) {
  const { document: line, edit } = editor;
  const { school } = usePlaneSchool();
  const own = spanOf(line, editor.tube);
  const rows = own.bought;
  const names = bendIds(own);
  const found = view.old ? null : (view.piece?.measured.bought ?? null);
  const set = (bought: readonly PartReading[]) => edit((was) => withSpan(was, { bought: [...bought] }, own.id));
  const change = (k: number, part: Partial<PartReading>) =>
    set(rows.map((row, i) => (i === k ? { ...row, ...part } : row)));
  const numberOf = (row: PartReading) => {
    const at = names.indexOf(row.row);
    return at >= 0 ? String(at + 1) : row.row === "" && row.kind === "leg" ? String(names.length + 1) : "";
  };
  const rowOf = (row: PartReading, number: number) =>
    names[number - 1] ?? (row.kind === "leg" && number === names.length + 1 ? "" : "gone");
  if (own.readings.kind === "corners") return null;
  return (
    <Section
      title="Check a bought part"
      hint="A ready-bent part is only close. Read it as the old line was read, and see where it departs."
      open={rows.length > 0}
    >
      {rows.map((row, k) => {
        const numbered = row.kind === "leg" || row.kind === "bend" || row.kind === "plane";
        const problem = found?.problems.find((item) => item.path === `/spans/${own.id}/bought/${k}`)?.message;
        return (
          <Box key={k} sx={{ borderBottom: "1px solid var(--rule)", py: 0.5 }}>
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "center" }}>
              <Word
                label={`Kind of part reading ${k + 1}`}
                value={row.kind}
                list={KINDS}
                onChange={(kind) =>
                  change(k, {
                    kind,
                    row: kind === "rim to rim" || kind === "whole length" ? "" : row.row || (names[0] ?? ""),
                  })
                }
              />
              {numbered && (
                <Typed
                  label={`Which one, part reading ${k + 1}`}
                  text={numberOf(row)}
                  placeholder="1"
                  width={44}
                  onText={(text) => change(k, { row: rowOf(row, Number.parseInt(text, 10) || 1) })}
                />
              )}
              <Typed
                label={`Part reading ${k + 1}`}
                text={row.text}
                placeholder="reads"
                takes={row.kind === "bend" ? "angle" : "length"}
                width={90}
                wrong={problem}
                onText={(text) => change(k, { text: text.slice(0, 80), unit: line.unit, by: school })}
              />
              <Verdict found={found} index={k} unit={line.unit} />
              <Button
                size="small"
                variant="text"
                aria-label={`Take out part reading ${k + 1}`}
                onClick={() => set(removeAt(rows, k))}
                sx={{ minWidth: 32, px: 0.5, ml: "auto" }}
              >
                ✕
              </Button>
            </Box>
            {problem && (
              <Box role="alert" aria-live="polite" sx={{ color: "var(--stop)", fontSize: 14 }}>
                {problem}
              </Box>
            )}
          </Box>
        );
      })}
      <Button
        size="small"
        sx={{ mt: 0.75 }}
        onClick={() =>
          set([
            ...rows,
            {
              kind: rows.length === 0 ? "rim to rim" : "leg",
              row: rows.length === 0 ? "" : (names[0] ?? ""),
              text: "",
              unit: line.unit,
              by: school,
            },
          ])
        }
      >
        Add a reading of the part
      </Button>
      {found?.end_b_mm != null && (
        <Box role="status" sx={{ mt: 1 }}>
          As read, and else like the old line, its end B would lie about{" "}
          <strong>{sayLength(found.end_b_mm, line.unit)}</strong> from the port and point{" "}
          {sayAngle(found.way_b_deg ?? 0)} away from it.
        </Box>
      )}
    </Section>
  );
}

function Verdict({ found, index, unit }: { found: BoughtPart | null; index: number; unit: Unit }) {
  const row = found?.compared.find((item) => item.index === index);
  if (!row) return null;
  const off = Math.abs(row.off);
  const good = off <= row.allowed;
  const size = row.degrees ? sayAngle(off) : sayLength(off, unit);
  return (
    <Box
      data-off={good ? "no" : "yes"}
      sx={{ fontSize: 14, color: good ? "var(--good)" : "var(--caution)", fontWeight: good ? 400 : 600 }}
    >
      {good ? "as the old one" : `${size} ${row.off > 0 ? "more" : "less"}`}
    </Box>
  );
}
