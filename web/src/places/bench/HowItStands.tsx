import Box from "@mui/material/Box";
import type { HandSlip, Unit, WayOut } from "../../api/types";
import { sayAngle, sayLength } from "../../format/units";
import type { MakingEditor } from "../../doc/useMaking";

const WAYS: Record<string, string> = {
  "as planned": "As planned",
  "re-plan": "Go on",
  tweak: "Bend again",
  forgive: "Leave it",
  joint: "Join",
  "start again": "Start again",
};

/** Whether end B still meets its port, what is changed for that, and the ways on where it does not. */
export function HowItStands({ editor }: { editor: MakingEditor }) {
  const { remade } = editor.standing;
  const unit = editor.making.document.unit;
  if (editor.making.state.made.length === 0) return null;
  const off = !remade.near;
  const others = remade.ways.slice(1);
  return (
    <Box
      data-meets={remade.meets}
      role="status"
      sx={{
        mt: 1.5,
        pl: 2,
        borderLeft: "6px solid",
        borderColor: !off ? "var(--good)" : remade.meets ? "var(--note)" : "var(--stop)",
        fontSize: 20,
      }}
    >
      <Box sx={{ fontWeight: 600 }}>
        {!off && "On the plan: end B meets its port."}
        {off &&
          remade.meets &&
          `As it is end B would miss by ${sayLength(remade.as_it_is.off_mm, unit)} and ${sayAngle(remade.as_it_is.askew_deg)}; re-planned, it meets its port after all.`}
        {off &&
          !remade.meets &&
          `End B will miss its port by ${sayLength(remade.then.off_mm, unit)} and ${sayAngle(remade.then.askew_deg)}.`}
      </Box>
      {remade.misread.map((item) => (
        <Box key={`${item.index} ${item.name}`} sx={{ fontSize: 18, color: "var(--stop)" }}>
          Bend {editor.making.state.made[item.index]?.bend}: its {item.name} cannot be read and counts as told.
        </Box>
      ))}
      {remade.slips.map((slip) => (
        <Box key={`${slip.bend} ${slip.kind}`} data-slip={`${slip.bend} ${slip.kind}`} sx={{ fontSize: 18 }}>
          {saySlip(slip, unit)}
        </Box>
      ))}
      {remade.changed && remade.changes.length > 0 && (
        <Box component="details" sx={{ fontSize: 18, color: "var(--second)", "& summary": { cursor: "pointer" } }}>
          <summary>What is changed ({remade.changes.length})</summary>
          <Box component="ul" sx={{ my: 0.5, pl: 3 }}>
            {remade.changes.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </Box>
        </Box>
      )}
      {off && remade.ways[0] && <Way way={remade.ways[0]} unit={unit} named={remade.ways.length > 1} />}
      {off && others.length > 0 && (
        <Box
          component="details"
          open={!remade.meets}
          sx={{ fontSize: 18, "& summary": { cursor: "pointer", color: "var(--second)" } }}
        >
          <summary>Other ways ({others.length})</summary>
          {others.map((way) => (
            <Way key={way.text} way={way} unit={unit} named />
          ))}
        </Box>
      )}
    </Box>
  );
}

/** What the hand did otherwise than told, and what that looks like. */
function saySlip({ bend, kind, off, like }: HandSlip, unit: Unit): string {
  const said = {
    place: `lies ${sayLength(Math.abs(off), unit)} ${off > 0 ? "further from" : "nearer to"} A than told`,
    angle: `was pulled ${sayAngle(Math.abs(off))} ${off > 0 ? "too far" : "too little"}`,
    turn: `lies ${sayAngle(Math.abs(off))} ${off > 0 ? "clockwise" : "anticlockwise"} of where it was told, seen from A`,
  }[kind];
  return `Bend ${bend} ${said}${like && `, ${like}`}.`;
}

function Way({ way, unit, named }: { way: WayOut; unit: Unit; named: boolean }) {
  return (
    <Box sx={{ fontSize: 18, py: 0.25 }}>
      {(named || way.kind !== "re-plan") && <b>{WAYS[way.kind]}: </b>}
      {way.text}
      {way.lost_mm > 0 && ` ${sayLength(way.lost_mm, unit)} of tube is lost.`}
    </Box>
  );
}
