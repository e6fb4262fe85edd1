import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { Unit } from "../../api/types";
import { Field } from "../../ui/Field";
import { Segments } from "../../ui/Segments";
import type { Asked } from "./TakeDialog";
import { TakeDialog } from "./TakeDialog";
import { Wrong } from "../../ui/Wrong";
import { useAsked } from "../../doc/useAsked";

const MOST_BYTES = 4_000_000;

/** Take readings from a file: what it was understood as is shown before anything is kept. */
export function ImportDialog(asked: Asked) {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [radius, setRadius] = useState("");
  const [unit, setUnit] = useState<Unit | null>(null);
  const [refused, setRefused] = useState("");
  const { document: line, tube } = asked.editor;
  const text = file?.text ?? "";
  const { answer: read, problem: unread } = useAsked(
    ["import", text, line, radius, unit, tube],
    (signal) => take(api.POST("/api/import", { body: { text, document: line, radius, unit, span: tube }, signal })),
    { wanted: file !== null },
  );
  const problem = refused || unread;

  const pick = (chosen: File | undefined) => {
    setRefused("");
    setUnit(null);
    setFile(null);
    if (!chosen) return;
    if (chosen.size > MOST_BYTES) {
      setRefused(
        `${chosen.name} is over 4 MB; a CSV of up to 5,000 rows, a DXF of one line or a line document is accepted.`,
      );
      return;
    }
    void chosen.text().then((text) => setFile({ name: chosen.name, text }));
  };

  return (
    <TakeDialog {...asked} title="Readings from a file" take="Take these readings" made={read?.document ?? null}>
      <Box sx={{ mb: 2 }}>
        A points CSV (x_mm, y_mm, z_mm, radius_mm), a bend CSV (straight_mm, rotation_deg, angle_deg, radius_mm), a DXF
        with one line in it (lines and arcs, or a polyline), or a Bendrel line document.
      </Box>
      <input
        type="file"
        aria-label="File"
        accept=".csv,.json,.dxf,text/csv,application/json"
        onChange={(event) => pick(event.target.files?.[0])}
      />
      <Field
        label="Radius where the file has none"
        placeholder="blank: this bender’s own"
        text={radius}
        onText={setRadius}
      />
      <Wrong text={problem} />
      {read && (
        <Box role="status" sx={{ display: "grid", gap: 1 }}>
          <Box>
            Understood as <strong>{read.understood}</strong>.
          </Box>
          {read.notes.map((note) => (
            <Box key={note} sx={{ color: "var(--caution)" }}>
              {note}.
            </Box>
          ))}
          {read.unit && (
            <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              Its figures are in
              <Segments<Unit>
                label="Unit of the file"
                value={read.unit}
                options={[
                  { value: "in", text: "inches" },
                  { value: "mm", text: "millimetres" },
                ]}
                onChange={setUnit}
              />
            </Box>
          )}
          <Box sx={{ color: "var(--second)" }}>
            Taking it replaces the readings of this line; undo brings them back.
          </Box>
        </Box>
      )}
    </TakeDialog>
  );
}
