import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";

/** What a stage that is about a tube says of a line that has none. */
export function NoTube() {
  return (
    <Box sx={{ p: 2 }}>
      <Typography variant="h2">This line has no tube</Typography>
      <Box sx={{ color: "var(--second)", mt: 1 }}>
        There is nothing to measure or bend here. Its hoses and components are asked at Choose; choose a piece on the
        strip to put a tube in beside it.
      </Box>
    </Box>
  );
}
