import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { typed } from "../../doc/rows";
import { spanOf } from "../../doc/rows";
import type { MakingEditor } from "../../doc/useMaking";
import { Reading } from "./Readings";

/** The gap after the cuts: what the rule reads straight across, and the piece planned for it. */
export function Gap({ editor }: { editor: MakingEditor }) {
  const { making, gap } = editor;
  const { unit } = making.document;
  const { tape } = spanOf(making.document, making.span).checks;
  const [text, setText] = useState(tape.text);
  const [problem, setProblem] = useState("");
  const begun = making.state.made.length > 0 || making.ended_at !== null;
  const set = async () => {
    setProblem("");
    await gap(typed(text, unit)).catch((error: unknown) => setProblem(error instanceof Error ? error.message : ""));
  };
  return (
    <Box
      component="form"
      aria-label="The gap as it is"
      onSubmit={(event) => {
        event.preventDefault();
        void set();
      }}
      sx={{ display: "flex", flexWrap: "wrap", gap: 2, alignItems: "flex-end", mt: 2, maxWidth: 760 }}
    >
      <Box sx={{ width: 300 }}>
        <Reading
          label="Straight across it reads"
          worth=""
          holder="as planned"
          takes="length"
          text={text}
          problem={problem || undefined}
          first={problem !== ""}
          onText={(now) => setText(now.slice(0, 40))}
        />
      </Box>
      <Button
        type="submit"
        variant="contained"
        sx={{ minHeight: 64, fontSize: 22 }}
        disabled={begun || text === tape.text}
      >
        Plan the piece for it
      </Button>
      {tape.text !== "" && text === tape.text && (
        <Box role="status" sx={{ fontSize: 20, alignSelf: "center" }}>
          The piece is planned for {tape.text}.
        </Box>
      )}
    </Box>
  );
}
