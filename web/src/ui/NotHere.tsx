import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { Bar } from "./Bar";

/** An address that leads nowhere, or a server that does not answer: why, and the way back. */
export function NotHere({ text }: { text: string }) {
  return (
    <>
      <Bar trail={[]} title="Not here" />
      <Box component="main" sx={{ p: 4 }}>
        <Typography role="alert" sx={{ mb: 2, fontSize: 18 }}>
          {text}
        </Typography>
        <Link to="/">To the bench board</Link>
      </Box>
    </>
  );
}
