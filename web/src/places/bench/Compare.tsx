import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { MadeBend } from "../../api/types";
import { usePlaneSchool } from "../../doc/usePlaneSchool";
import { condensed } from "../../theme/theme";
import { sayAngle, sayLength } from "../../format/units";
import { HowItStands } from "./HowItStands";
import { type Read, Readings, readAgain, readOf } from "./Readings";
import type { MakingEditor } from "../../doc/useMaking";

/** The part as it was read against the plan: where it departs, and which bend to tweak. */
export function Compare({ editor, onClose }: { editor: MakingEditor; onClose: () => void }) {
  const { making, keep } = editor;
  const unit = making.document.unit;
  const { school } = usePlaneSchool();
  const made = making.state.made;
  return (
    <Box component="section" aria-label="Compared with the plan">
      <Box component="h2" sx={{ m: 0, font: `600 44px/1.05 ${condensed}` }}>
        Compared with the plan
      </Box>
      {made.length === 0 && <Box sx={{ fontSize: 22, mt: 2 }}>No bend is made yet.</Box>}
      <HowItStands editor={editor} />
      {made.map((item) => (
        <Row
          key={item.bend}
          item={item}
          editor={editor}
          unit={unit}
          onRead={(read) =>
            keep((state) => ({
              ...state,
              made: state.made.map((was) => (was.bend === item.bend ? readAgain(was, read, school, unit) : was)),
            }))
          }
        />
      ))}
      <Button sx={{ mt: 2, minHeight: 56, fontSize: 20 }} onClick={onClose}>
        Back to the step
      </Button>
    </Box>
  );
}

function Row({
  item,
  editor,
  unit,
  onRead,
}: {
  item: MadeBend;
  editor: MakingEditor;
  unit: "in" | "mm";
  onRead: (read: Read) => void;
}) {
  const [read, setRead] = useState<Read>(readOf(item));
  const told = editor.standing.remade.departures.filter((departure) => departure.bend === item.bend);
  const dirty = JSON.stringify(read) !== JSON.stringify(readOf(item));
  return (
    <Box
      component="form"
      data-compare={item.bend}
      onSubmit={(event) => {
        event.preventDefault();
        onRead(read);
      }}
      sx={{ py: 2, borderTop: "1px solid var(--rule)" }}
    >
      <Box sx={{ display: "flex", gap: 3, alignItems: "baseline", flexWrap: "wrap" }}>
        <Box sx={{ font: `600 28px ${condensed}` }}>Bend {item.bend}</Box>
        {told.length === 0 && <Box sx={{ fontSize: 18, color: "var(--second)" }}>nothing read: taken as told</Box>}
        {told.map((departure) => (
          <Box key={departure.name} sx={{ fontSize: 20 }}>
            {departure.name} {departure.off > 0 ? "+" : "−"}
            {departure.name === "leg" ? sayLength(Math.abs(departure.off), unit) : sayAngle(Math.abs(departure.off))}
          </Box>
        ))}
      </Box>
      <Readings
        bend={item.bend}
        read={read}
        setRead={setRead}
        unit={unit}
        expected={item}
        first={editor.making.state.made[0] === item}
        leg_mm={editor.standing.remade.legs_mm[editor.making.state.made.indexOf(item)] ?? null}
        editor={editor}
      />
      {dirty && (
        <Button type="submit" sx={{ mt: 1, minHeight: 48 }}>
          Keep these readings
        </Button>
      )}
    </Box>
  );
}
