import Box from "@mui/material/Box";
import { setWho, useWho } from "../../doc/who";
import { Typed } from "../../ui/Entry";

/** Who is at the work: every tick and every look from now on carries the name. */
export function WhoField() {
  return (
    <Box component="label" sx={{ display: "flex", alignItems: "center", gap: 1, color: "var(--second)", my: 1 }}>
      Done by
      <Typed label="Done by" text={useWho()} placeholder="your name" width={150} onText={setWho} />
    </Box>
  );
}
