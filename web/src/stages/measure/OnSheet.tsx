import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Check, Checks, DrawnEnd, OnSheet as Sheet, Unit } from "../../api/types";
import { Field } from "../../ui/Field";
import { BendsOnSheet } from "./BendsOnSheet";
import { OnItsSheet } from "./drawings";
import { blankSheet, sheetAsDrawn } from "./further";
import { HowTaken } from "./HowTaken";

interface Props {
  checks: Checks;
  /** End B as a sheet printed now shows it. */
  drawn: DrawnEnd | null;
  unit: Unit;
  /** Where the sheet is printed from. */
  href: string;
  bends: { id: string; name: string }[];
  problem: (path: string) => string | undefined;
  verdict: (kind: Check["kind"], of?: string) => ReactNode;
  onSet: (change: Partial<Checks>) => void;
}

type Figure = "along" | "off" | "off_clock" | "tilt" | "tilt_clock";

/** The old part laid on its jig sheet: what brings end B nearest of all. */
export function OnSheet({ checks, drawn, unit, href, bends, problem, verdict, onSet }: Props) {
  const { sheet } = checks;
  const read = sheet.drawn !== null;
  const set = (change: Partial<Sheet>) => onSet({ sheet: sheetAsDrawn(sheet, change, drawn, unit) });
  const field = (name: Figure, label: string, holder: string, takes?: "length" | "angle") => (
    <Field
      {...(takes ? { takes } : {})}
      label={label}
      text={sheet[name]}
      placeholder={holder}
      problem={problem(`sheet/${name}`)}
      onText={(text) => set({ [name]: text.slice(0, 40) })}
    />
  );
  return (
    <>
      <HowTaken drawing={<OnItsSheet />}>
        Print the sheet of what was read so far and lay the old part on its blocks: end A at its stop, rolled to its
        best. Read where its end B lies against the printed one; then, where asked for, how a bend lies with its own
        block left out: how far beside its drawing at the middle of the bend (a square stood on the board against the
        tube), and how high.
      </HowTaken>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1, alignItems: "center" }}>
        <Button size="small" variant="text" href={href} target="_blank" rel="noopener" disabled={!drawn}>
          Print its sheet
        </Button>
        {read && (
          <Button size="small" variant="text" onClick={() => onSet({ sheet: blankSheet(unit) })}>
            Clear what was read on it
          </Button>
        )}
      </Box>
      {field("along", sheet.short ? "Too short by" : "Too long by", "touches, 4", "length")}
      <Button size="small" variant="text" onClick={() => set({ short: !sheet.short })} sx={{ ml: "112px" }}>
        {sheet.short ? "It is too long" : "It is too short"}
      </Button>
      {field("off", "Beside by", "touches, 4", "length")}
      {field("off_clock", "Towards", "clock seen from A, 3:00")}
      {field("tilt", "Leans by", "square, 1.5°", "angle")}
      {field("tilt_clock", "Leans towards", "clock seen from A, 6:00")}
      {verdict("sheet")}
      {verdict("lean")}
      <BendsOnSheet
        sheet={sheet}
        drawn={sheet.drawn ?? drawn}
        bends={bends}
        unit={unit}
        problem={problem}
        verdict={(id) => verdict("bend on sheet", id)}
        onSet={(onIt) => set({ bends: onIt })}
      />
    </>
  );
}
