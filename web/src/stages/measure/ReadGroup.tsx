import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";

interface Props {
  /** Where it stands within the checks. */
  at: string;
  /** Of what it is a reading: the group is called so, and its button. */
  name: string;
  /** What stands in the row of the button. */
  beside?: ReactNode;
  onTakeOut: () => void;
  children: ReactNode;
}

/** One further reading of several of its kind: its fields, and a way to take it out. */
export function ReadGroup({ at, name, beside, onTakeOut, children }: Props) {
  return (
    <Box data-at={at} role="group" aria-label={name} sx={{ borderTop: "1px solid var(--rule)" }}>
      {children}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        {beside}
        <Button size="small" variant="text" aria-label={`Take out: ${name}`} onClick={onTakeOut}>
          Take out
        </Button>
      </Box>
    </Box>
  );
}
