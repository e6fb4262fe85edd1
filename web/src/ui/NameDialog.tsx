import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { useId, useState } from "react";
import { Dialog } from "./Dialog";
import { Input } from "./Input";

const LONGEST = 120;

interface Props {
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
export function NameDialog({ open, ...asked }: Props) {
  return open ? <Asking {...asked} /> : null;
}

function Asking(props: Omit<Props, "open">) {
  const { title, label, first, done = "Done", needed = "A name is needed.", refuse, children, onClose, onDone } = props;
  const id = useId();
  const [name, setName] = useState(first);
  const [tried, setTried] = useState(false);
  const clean = name.trim();
  const wrong =
    clean === "" ? needed : clean.length > LONGEST ? `At most ${LONGEST} characters.` : (refuse?.(clean) ?? "");
  const shown = tried && wrong !== "";
  return (
    <Dialog
      title={title}
      width={444}
      onClose={onClose}
      onSubmit={() => {
        setTried(true);
        if (wrong) return;
        onDone(clean);
        onClose();
      }}
      actions={
        <>
          <Button variant="text" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" variant="contained">
            {done}
          </Button>
        </>
      }
    >
      <label htmlFor={id}>{label}</label>
      <Input
        id={id}
        autoFocus
        text={name}
        wrong={shown}
        aria-describedby={`${id}-said`}
        onText={setName}
        onFocus={(event) => event.target.select()}
        sx={{ minHeight: 44, mt: 0.5 }}
      />
      <Box id={`${id}-said`} aria-live="polite" sx={{ minHeight: 24, mt: 0.75, color: "var(--stop)", fontSize: 14 }}>
        {shown && wrong}
      </Box>
      {children}
    </Dialog>
  );
}
