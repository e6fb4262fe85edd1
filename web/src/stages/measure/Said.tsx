import Box from "@mui/material/Box";

/** What is wrong with a row of readings, right under it. */
export function Said({ messages }: { messages: (string | undefined)[] }) {
  const said = messages.filter((message) => message !== undefined);
  if (said.length === 0) return null;
  return (
    <tr>
      <td colSpan={6}>
        {said.map((message) => (
          <Box
            key={message}
            role="alert"
            aria-live="polite"
            sx={{ color: "var(--stop)", fontSize: 14, lineHeight: 1.3, py: 0.5, overflowWrap: "anywhere" }}
          >
            {message}
          </Box>
        ))}
      </td>
    </tr>
  );
}
