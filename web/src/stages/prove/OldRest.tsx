import Box from "@mui/material/Box";
import type { Condition } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import { REST } from "../../format/words";
import { condensed } from "../../theme/theme";
import { Typed, Word } from "../../ui/Entry";

/** What was seen of the old part that stays: the papers say it as it was seen, or that nobody looked. */
export function OldRest({ editor }: { editor: LineEditor }) {
  const { spans, condition } = editor.document;
  const old = spans.some((span) => (span.kind === "component" ? span.age === "old" : span.state === "stays"));
  if (!old) return null;
  const set = (part: Partial<Condition>) =>
    editor.edit((was) => ({ ...was, condition: { ...was.condition, ...part } }));
  return (
    <Box component="section" aria-label="The old part that stays" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        The old part that stays
      </Box>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
        <Word label="It is" value={condition.rest} list={REST} onChange={(rest) => set({ rest })} />
        {condition.rest !== "not looked at" && (
          <Typed
            label="What was seen of it"
            text={condition.rest_note}
            placeholder="surface rust at the second clip"
            width={260}
            onText={(text) => set({ rest_note: text.slice(0, 400) })}
          />
        )}
      </Box>
    </Box>
  );
}
