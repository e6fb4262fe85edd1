import Button from "@mui/material/Button";
import { useState } from "react";
import { api, sentence, take } from "../api/client";
import { saveFile } from "../api/download";
import { NotHere } from "../ui/NotHere";

/** A line whose document cannot be read any more, and the two ways out. */
export function Unreadable({ lineId, text, again }: { lineId: string; text: string; again: () => void }) {
  const [said, setSaid] = useState("");
  const attempt = (work: Promise<unknown>, then?: () => void) =>
    void work.then(then).catch((error: unknown) => setSaid(sentence(error)));
  return (
    <NotHere title="A line that cannot be read" text={said || text}>
      <Button onClick={() => attempt(saveFile(`/api/lines/${lineId}/as-kept.json`))}>Export it as it is</Button>
      <Button
        onClick={() =>
          attempt(take(api.POST("/api/lines/{line_id}/last-good", { params: { path: { line_id: lineId } } })), again)
        }
      >
        Back to its last good step
      </Button>
    </NotHere>
  );
}
