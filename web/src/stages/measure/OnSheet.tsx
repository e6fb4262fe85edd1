import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Checks, DrawnEnd, OnSheet as Sheet, Unit } from "../../api/types";
import { Field } from "../../ui/Field";
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
  problem: (path: string) => string | undefined;
  onSet: (change: Partial<Checks>) => void;
}

type Figure = "along" | "off" | "off_clock" | "tilt" | "tilt_clock";

/** The old part laid on its jig sheet: what brings end B nearest of all. */
export function OnSheet({ checks, drawn, unit, href, problem, onSet }: Props) {
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
        best. Read where its end B lies against the printed one.
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
    </>
  );
}
