import Box from "@mui/material/Box";
import { createContext, useContext } from "react";
import type { LineEditor } from "../doc/useLine";

/** How saving stands now: the mark follows at once, though the head around it is drawn a breath later. */
export const SavingContext = createContext<LineEditor | null>(null);

/** Whether what was typed is kept, and since when. */
export function SaveMark() {
  const editor = useContext(SavingContext);
  if (!editor) return null;
  const at = editor.savedAt ?? new Date(`${editor.opened.updated_at}Z`);
  const time = at.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false });
  const text = {
    saved: `saved ${time}`,
    typing: "saving…",
    saving: "saving…",
    failed: "not saved",
    refused: "not saved",
    conflict: "not saved",
  }[editor.save];
  const bad = ["failed", "refused", "conflict"].includes(editor.save);
  return (
    <Box
      role="status"
      data-save={editor.save}
      title={editor.saveMessage}
      sx={{
        minWidth: 84,
        textAlign: "right",
        color: bad ? "var(--stop)" : "var(--second)",
        fontWeight: bad ? 600 : 400,
      }}
    >
      {text}
    </Box>
  );
}
