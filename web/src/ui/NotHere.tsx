import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { Bar } from "./Bar";

/** An address that leads nowhere, or a server that does not answer: why, the ways out, and the way back. */
export function NotHere({
  text,
  title = "Not here",
  children,
}: {
  text: string;
  title?: string;
  children?: ReactNode;
}) {
  return (
    <>
      <Bar trail={[]} title={title} />
      <Box component="main" sx={{ p: 4 }}>
        <Typography role="alert" sx={{ mb: 2, fontSize: 18, maxWidth: 760 }}>
          {text}
        </Typography>
        {children && <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mb: 3 }}>{children}</Box>}
        <Link to="/">To the bench board</Link>
      </Box>
    </>
  );
}
