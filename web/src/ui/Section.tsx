import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { useState } from "react";
import { condensed } from "../theme/theme";

interface Props {
  title: string;
  hint: string;
  /** Unfolded, because something is in it. */
  open: boolean;
  children: ReactNode;
}

/** A part of a panel that stays folded until it is wanted. */
export function Section({ title, hint, open, children }: Props) {
  // opened once, it stays: emptying the last field must not fold the part away under the typing hand
  const [opened, setOpened] = useState(open);
  if (open && !opened) setOpened(true);
  return (
    <Box
      component="details"
      open={opened || undefined}
      sx={{
        borderTop: "1px solid var(--rule)",
        "& summary": {
          cursor: "pointer",
          minHeight: 36,
          display: "flex",
          alignItems: "center",
          gap: 1,
          font: `600 18px ${condensed}`,
          "@media (pointer: coarse)": { minHeight: 44 },
        },
        "& summary::before": { content: '"+"', width: 14 },
        "&[open] summary::before": { content: '"–"' },
      }}
    >
      <summary>{title}</summary>
      <Box sx={{ pb: 1, boxSizing: "border-box" }}>
        <Box sx={{ fontSize: 14, color: "var(--second)", mb: 0.5 }}>{hint}</Box>
        {children}
      </Box>
    </Box>
  );
}
