import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { Dialog } from "../../ui/Dialog";
import type { Line } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";

export interface Asked {
  editor: LineEditor;
  onClose: () => void;
}

interface Props extends Asked {
  title: string;
  take: string;
  /** What the line would become; nothing can be taken while there is none. */
  made: Line | null;
  children: ReactNode;
}

/** Readings from somewhere else: what they would make of this line is seen before it is taken. */
export function TakeDialog({ editor, onClose, title, take, made, children }: Props) {
  return (
    <Dialog
      title={title}
      onClose={onClose}
      actions={
        <>
          {" "}
          <Button variant="text" onClick={onClose}>
            Leave it
          </Button>
          <Button
            variant="contained"
            disabled={!made}
            onClick={() => {
              if (made) editor.edit(() => made);
              onClose();
            }}
          >
            {take}
          </Button>
        </>
      }
    >
      {children}
    </Dialog>
  );
}
