import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import type { Part } from "../../api/types";
import { Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { spanOf, withSpan } from "../../doc/rows";
import { sayLength } from "../../format/units";

/** When each end is flared and with what, how many nuts go on, and what the piece is cut from. */
export function EndsAndStock({ editor, view }: { editor: LineEditor; view: PlanView }) {
  const { document: line, edit } = editor;
  const catalogue = useCatalogue();
  const { part } = view;
  if (!part) return null;
  const span = spanOf(line, editor.tube);
  const nuts = [part.end_a, part.end_b].filter((end) => end.nut && end.flared && !end.ready).length;
  return (
    <Box component="section" aria-label="Ends and stock" sx={{ mt: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Ends and stock
      </Typography>
      <Box>
        {nuts === 0
          ? "No nut has to go on before."
          : nuts === 1
            ? "One nut goes on before the first flare and bend, thread outwards."
            : "Two nuts go on before the first flare and bend, threads outwards, one for each end."}
      </Box>
      {view.bench && part.bends.length > 0 && (
        <Box data-start={view.bench.start.end}>
          {view.bench.start.text}
          {span.held !== view.bench.start.end && span.order.length === 0 && (
            <Button
              size="small"
              sx={{ ml: 1 }}
              onClick={() => edit((was) => withSpan(was, { held: view.bench?.start.end ?? "A" }, editor.tube))}
            >
              Hold {view.bench.start.end}
            </Button>
          )}
        </Box>
      )}
      {(["end_a", "end_b"] as const).map((key) => {
        const end = part[key];
        const flarers = (catalogue?.flarers ?? []).filter((tool) => tool.forms.includes(end.kind));
        const set = (change: object) =>
          edit((was) => withSpan(was, { [key]: { ...spanOf(was, editor.tube)[key], ...change } }, editor.tube));
        return (
          <Box key={key} data-end={end.end} sx={{ mt: 1 }}>
            <Box>
              <b>End {end.end}:</b> {saidOf(end, line.unit)}
            </Box>
            {end.flared && (
              <Pick
                label="Flared with"
                value={span[key].flarer}
                options={[
                  { id: "", name: "the usual bar" },
                  ...flarers.map((tool) => ({
                    id: tool.id,
                    name: `${tool.name}, holds ${sayLength(tool.grip_mm, line.unit)}`,
                  })),
                ]}
                onChange={(flarer) => set({ flarer })}
              />
            )}
            {end.comes_finished && (
              <FormControlLabel
                control={
                  <Checkbox
                    color="default"
                    checked={span[key].ready}
                    onChange={(event) => set({ ready: event.target.checked })}
                  />
                }
                label={
                  end.flared
                    ? "Comes with its flare and nut: a stick’s own, or half of a bought piece"
                    : `Comes finished: ${end.fitting_name}, as the piece was bought`
                }
              />
            )}
          </Box>
        );
      })}
      <Box sx={{ mt: 1 }}>
        <Pick
          label="Cut from"
          value={span.stock_form}
          options={[
            { id: "stick", name: "a straight stick" },
            { id: "coil", name: "a coil" },
            { id: "folded", name: "a folded line" },
          ]}
          onChange={(form) => edit((was) => withSpan(was, { stock_form: form as typeof span.stock_form }, editor.tube))}
        />
        {part.take_mm > part.cut_mm && (
          <Box sx={{ fontSize: 14, color: "var(--second)" }}>
            Take {sayLength(part.take_mm, line.unit)}: {sayLength(part.take_mm - part.cut_mm, line.unit)} is for
            straightening.
          </Box>
        )}
      </Box>
    </Box>
  );
}

function saidOf(end: Part["end_a"], unit: "in" | "mm"): string {
  const room = `${sayLength(end.straight_mm, unit)} of straight`;
  if (!end.flared) return `${end.fitting_name}${end.ready ? ", as it comes" : ""}, ${room}.`;
  if (end.ready)
    return end.order === "before"
      ? `flared as it comes, ${room}.`
      : `flared as it comes, but ${room} is too short to bend behind it.`;
  if (end.order === null) return `${room} is too short to flare before or after bending.`;
  const both = end.possible_orders.length === 2;
  const when = end.order === "before" ? "flare before bending" : "flare after bending";
  return `${when}${both ? " (either way has room)" : ", the other way has no room"}; ${room}.`;
}
