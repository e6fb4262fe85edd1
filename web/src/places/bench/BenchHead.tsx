import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { condensed } from "../../theme/theme";
import { Light } from "../../ui/Light";

interface Props {
  /** The way back. */
  leave: ReactNode;
  title: string;
  help?: ReactNode;
  children?: ReactNode;
}

/** The head of a bench: the way back, what is made, the light, and what else the bench has. */
export function BenchHead({ leave, title, help, children }: Props) {
  return (
    <Box
      component="header"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 2,
        px: 2,
        minHeight: 56,
        borderBottom: "2px solid var(--ink)",
        flexWrap: "wrap",
      }}
    >
      <Box component="nav" aria-label="Where you are" sx={{ "& a": { color: "var(--second)", py: 1.5 } }}>
        {leave}
      </Box>
      <Box
        component="h1"
        sx={{
          m: 0,
          flex: 1,
          minWidth: 0,
          font: `600 24px ${condensed}`,
          overflow: "hidden",
          textOverflow: "ellipsis",
          whiteSpace: "nowrap",
        }}
      >
        {title}
      </Box>
      {help}
      <Light />
      {children}
    </Box>
  );
}
