import Box from "@mui/material/Box";

/** What is wrong, in a sentence; nothing where nothing is. */
export function Wrong({ text }: { text: string }) {
  return text ? (
    <Box role="alert" sx={{ color: "var(--stop)", overflowWrap: "anywhere" }}>
      {text}
    </Box>
  ) : null;
}
