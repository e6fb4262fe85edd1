import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Fragment } from "react";
import { Dialog } from "./Dialog";

const KEYS: [string, string][] = [
  ["?", "this list"],
  ["Alt+1 … Alt+8", "on a line: Look, Remove, Measure, Choose, Plan, Make, Fit, Prove"],
  ["Alt+1 … Alt+7", "on a job: Lines, Circuits, Strip-down, Cut list, Kit, Who pays, Papers"],
  ["Ctrl+Z, Ctrl+Y", "undo, redo"],
  ["Enter", "in a reading: the same field of the next row"],
  ["↑ ↓", "in a reading: the row above or below"],
  ["Ctrl+Enter", "in a reading: a new row below"],
  ["Ctrl+Backspace", "in a reading: take the row out"],
  ["Alt+↑, Alt+↓", "in a reading: move the row up or down"],
  ["← →", "on the strip: the bend before or after"],
  ["Shift+← →", "on the strip: the piece, joint or port before or after"],
  ["Delete", "on the strip: take the chosen piece out"],
  ["Ctrl+P", "print the build sheet"],
  ["← →", "at the bench: the step before or after"],
  ["Enter", "at the bench: what the large button says"],
  ["T", "at the bench: start or stop the time"],
  ["Esc", "let go of the chosen bend, close the working or the swing; leave the bench"],
];

/** The shortcuts of all places. */
export default function KeyList({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose} actions={<Button onClick={onClose}>Close</Button>}>
      <Box component="dl" sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 3, rowGap: 0.75, m: 0 }}>
        {KEYS.map(([keys, text]) => (
          <Fragment key={keys}>
            <Box component="dt" sx={{ fontWeight: 600 }}>
              {keys}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {text}
            </Box>
          </Fragment>
        ))}
      </Box>
    </Dialog>
  );
}
