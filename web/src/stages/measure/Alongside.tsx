import Box from "@mui/material/Box";
import type { BendReadings } from "../../api/types";
import { editBends, readingsAt, typed } from "../../doc/rows";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Field } from "../../ui/Field";

/** A line that is bent after the old part laid beside it: only its length is asked. */
export function Alongside({ editor, view, readings }: { editor: LineEditor; view: PlanView; readings: BendReadings }) {
  const { document: line, edit } = editor;
  const path = `${readingsAt(editor.tube)}/last`;
  const blank = readings.last.text.trim() === "";
  const problem = blank ? undefined : view.plan?.problems.find((item) => item.path === path)?.message;
  return (
    <Box component="section" aria-label="Copied alongside">
      <Box sx={{ mb: 1 }}>
        The new tube is taped against the old part and bent after it, bend by bend; nothing else is read. Lay a string
        along the old part, round every bend, from rim to rim.
      </Box>
      <Field
        label="Length by string"
        text={readings.last.text}
        placeholder="whole length, rim to rim"
        takes="length"
        problem={problem}
        onText={(text) =>
          edit((was) => editBends(was, (now) => ({ ...now, last: typed(text.slice(0, 80), line.unit) }), editor.tube))
        }
      />
      <Box sx={{ color: "var(--second)", mt: 1 }}>
        Clips and sleeves go over to the same places: note them on Look, and they stand on the strip. Tube, ends, cut,
        sheet and record are as with any line; what hangs on the bends is not judged.
      </Box>
    </Box>
  );
}
