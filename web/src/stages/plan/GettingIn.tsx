import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { RigidSpan } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { removeOpening } from "../../doc/edits";
import type { LineEditor } from "../../doc/useLine";
import { bendIds, freshId, removeAt, spanOf, typed, withSpan } from "../../doc/rows";

type Opening = RigidSpan["openings"][number];
type LeftOpen = RigidSpan["left_open"][number];

/** What the line goes through on its way in, and the bends that are finished in place. */
export function GettingIn({ editor }: { editor: LineEditor }) {
  const { document: line, edit } = editor;
  const own = spanOf(line, editor.tube);
  const { openings, left_open: left } = own;
  const names = bendIds(own);
  const set = (k: number, change: Partial<Opening>) =>
    edit((was) =>
      withSpan(
        was,
        { openings: spanOf(was, own.id).openings.map((item, i) => (i === k ? { ...item, ...change } : item)) },
        own.id,
      ),
    );
  const setLeft = (k: number, change: Partial<LeftOpen>) =>
    edit((was) =>
      withSpan(
        was,
        {
          left_open: spanOf(was, editor.tube).left_open.map((item, i) => (i === k ? { ...item, ...change } : item)),
        },
        editor.tube,
      ),
    );
  const add = () =>
    edit((was) =>
      withSpan(
        was,
        {
          openings: [
            ...spanOf(was, own.id).openings,
            {
              id: freshId("o"),
              what: "",
              at: typed("", was.unit),
              enters: "B",
              across: typed("", was.unit),
              deep: typed("", was.unit),
              room: typed("", was.unit),
            },
          ],
        },
        own.id,
      ),
    );
  return (
    <Box component="section" aria-label="Getting it in" sx={{ mt: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Getting it in
      </Typography>
      {openings.length === 0 && left.length === 0 && (
        <Box sx={{ color: "var(--second)" }}>Nothing to go through. Add each opening that the bent tube must pass.</Box>
      )}
      {openings.map((item, k) => (
        <Box key={k} data-opening={k + 1} sx={{ mt: 1, pb: 1, borderBottom: "1px solid var(--rule)" }}>
          <Field
            label="Opening"
            text={item.what}
            placeholder="hole in the frame"
            onText={(what) => set(k, { what: what.slice(0, 80) })}
          />
          <Field
            label="Sits at, from A"
            text={item.at.text}
            placeholder="along the fitted line"
            takes="length"
            onText={(text) => set(k, { at: typed(text, line.unit) })}
          />
          <Pick
            label="Goes in with"
            value={item.enters}
            options={[
              { id: "A", name: "end A first" },
              { id: "B", name: "end B first" },
            ]}
            onChange={(enters) => set(k, { enters: enters as "A" | "B" })}
          />
          <Field
            label="Wide"
            text={item.across.text}
            placeholder="clear width"
            takes="length"
            onText={(text) => set(k, { across: typed(text, line.unit) })}
          />
          <Field
            label="Deep"
            text={item.deep.text}
            placeholder="a thin plate"
            takes="length"
            onText={(text) => set(k, { deep: typed(text, line.unit) })}
          />
          <Field
            label="Free beyond"
            text={item.room.text}
            placeholder="nothing in the way"
            takes="length"
            onText={(text) => set(k, { room: typed(text, line.unit) })}
          />
          <Button size="small" variant="text" onClick={() => edit((was) => removeOpening(was, item.id, own.id))}>
            Take this opening out
          </Button>
        </Box>
      ))}
      {left.map((item, k) => (
        <Box
          key={k}
          data-left-open={names.indexOf(item.row) + 1}
          sx={{ mt: 1, pb: 1, borderBottom: "1px solid var(--rule)" }}
        >
          <b>Bend {names.indexOf(item.row) + 1} is left open</b>
          <Field
            label="Bent at first to"
            text={item.angle.text}
            placeholder="degrees"
            takes="angle"
            onText={(text) => setLeft(k, { angle: { text: text.slice(0, 80), exact_deg: null } })}
          />
          <Pick
            label="Finished"
            value={item.how}
            options={[
              { id: "by hand", name: "in place, by hand" },
              { id: "with pliers", name: "in place, with pliers" },
              { id: "out again, at the tool", name: "out again, at the tool" },
            ]}
            onChange={(how) => setLeft(k, { how: how as "by hand" | "with pliers" | "out again, at the tool" })}
          />
          <Button
            size="small"
            variant="text"
            onClick={() =>
              edit((was) => withSpan(was, { left_open: removeAt(spanOf(was, editor.tube).left_open, k) }, editor.tube))
            }
          >
            Bend it whole
          </Button>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1, mt: 1 }}>
        <Button size="small" disabled={openings.length >= 12} onClick={add}>
          Add an opening
        </Button>
      </Box>
    </Box>
  );
}
