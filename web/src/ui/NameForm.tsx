import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { useState } from "react";

const LONGEST = 120;

export interface NameAsked {
  open: boolean;
  title: string;
  label: string;
  first: string;
  done?: string;
  needed?: string;
  /** Why a text that is there will not do, blank where it does. */
  refuse?: (text: string) => string;
  children?: ReactNode;
  onClose: () => void;
  onDone: (name: string) => void;
}

/** Ask for a name; an empty or overlong one is refused where it is typed. */
export default function NameForm({
  open,
  title,
  label,
  first,
  done = "Done",
  needed = "A name is needed.",
  refuse,
  children,
  onClose,
  onDone,
}: NameAsked) {
  const [name, setName] = useState(first);
  const [tried, setTried] = useState(false);
  const clean = name.trim();
  const wrong =
    clean === "" ? needed : clean.length > LONGEST ? `At most ${LONGEST} characters.` : (refuse?.(clean) ?? "");
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="name-title">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          setTried(true);
          if (wrong) return;
          onDone(clean);
          onClose();
        }}
      >
        <DialogTitle id="name-title">{title}</DialogTitle>
        <DialogContent>
          <TextField
            autoFocus
            fullWidth
            margin="dense"
            label={label}
            value={name}
            error={tried && wrong !== ""}
            helperText={tried ? wrong : " "}
            onChange={(event) => setName(event.target.value)}
            onFocus={(event) => event.target.select()}
          />
          {children}
        </DialogContent>
        <DialogActions>
          <Button variant="text" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" variant="contained">
            {done}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
