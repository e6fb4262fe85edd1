import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** A drawing of how a reading is taken, and a sentence. */
export function HowTaken({ drawing, children }: { drawing: ReactNode; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", color: "var(--second)", fontSize: 14, my: 0.5 }}>
      {drawing}
      <Box>{children}</Box>
    </Box>
  );
}
