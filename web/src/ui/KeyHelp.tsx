import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { Fragment, useEffect, useState } from "react";

const KEYS: [string, string][] = [
  ["?", "this list"],
  ["Alt+1 … Alt+7", "Look, Remove, Measure, Choose, Plan, Make, Fit"],
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
  ["Enter", "at the bench: this step is done"],
  ["T", "at the bench: start or stop the time"],
  ["Esc", "let go of the chosen bend, close the working or the swing; leave the bench"],
];

function inText(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches("input, textarea, select, [contenteditable]");
}

/** The list of shortcuts, behind a button and the question mark. */
export function KeyHelp() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "?" && !inText(event.target)) setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <Button size="small" variant="text" onClick={() => setOpen(true)} sx={{ minWidth: 44 }}>
        Keys
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="keys-title">
        <DialogTitle id="keys-title">Keys</DialogTitle>
        <DialogContent>
          <Box
            component="dl"
            sx={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: 3, rowGap: 0.75, m: 0 }}
          >
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
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
