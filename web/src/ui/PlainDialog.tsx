import Dialog from "@mui/material/Dialog";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  titleId: string;
  onClose: () => void;
  children: ReactNode;
}

/** A dialog whose content starts anew every time it is opened. */
export function PlainDialog({ open, titleId, onClose, children }: Props) {
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="sm" aria-labelledby={titleId}>
      {open && children}
    </Dialog>
  );
}
