import Box from "@mui/material/Box";

/** What must be said before this is done: it can hurt somebody. */
export function Cautions({ texts, large = false }: { texts: readonly string[]; large?: boolean }) {
  if (texts.length === 0) return null;
  return (
    <Box
      role="note"
      aria-label="Cautions"
      sx={{
        borderLeft: "4px solid var(--caution)",
        pl: 1.5,
        my: large ? 2 : 1,
        columns: large ? undefined : "250px 2",
        columnGap: 3,
        fontSize: large ? 22 : 15,
        lineHeight: 1.35,
      }}
    >
      {texts.map((text) => (
        <Box key={text} sx={{ py: 0.25, breakInside: "avoid" }}>
          {text}
        </Box>
      ))}
    </Box>
  );
}
