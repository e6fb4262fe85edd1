import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** What belongs side by side where the panel has room for it, else one under the other. */
export function Columns({ children }: { children: ReactNode }) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "minmax(0, 1fr)",
        columnGap: 3,
        alignItems: "start",
        "@container panel (min-width: 560px)": { gridTemplateColumns: "minmax(0, 1fr) minmax(0, 1fr)" },
      }}
    >
      {children}
    </Box>
  );
}
