import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { Rebuilt, Unit } from "../../api/types";
import { Field } from "../../ui/Field";
import { sayLength } from "../../format/units";
import { Wrong } from "../../ui/Wrong";
import type { Asked } from "./TakeDialog";
import { TakeDialog } from "./TakeDialog";
import { useAsked } from "../../doc/useAsked";

/** The old line between the same two ports, with the radius that the shop's bender makes. */
export function RadiusDialog(asked: Asked) {
  const { document: line, tube } = asked.editor;
  const [radius, setRadius] = useState("");
  const { answer: made, problem } = useAsked(["reradius", line, radius, tube], (signal) =>
    take(api.POST("/api/reradius", { body: { document: line, radius, span: tube }, signal })),
  );
  return (
    <TakeDialog
      {...asked}
      title="Another radius between the same ports"
      take="Take this line"
      made={made?.result.meets_ports ? made.document : null}
    >
      <Field label="Radius" text={radius} placeholder="blank: this bender’s own" onText={setRadius} />
      <Wrong text={problem} />
      {made && <Told made={made} unit={line.unit} />}
    </TakeDialog>
  );
}

function Told({ made, unit }: { made: Rebuilt; unit: Unit }) {
  const { result } = made;
  const say = (mm: number) => sayLength(mm, unit);
  return (
    <Box role="status" sx={{ mt: 1, display: "grid", gap: 1 }}>
      {result.short.length > 0 && (
        <Box sx={{ color: "var(--caution)" }}>
          With its corners kept,{" "}
          {result.short.map((item) => `straight ${item.straight} lacks ${say(item.lack_mm)}`).join(", ")}.
        </Box>
      )}
      {result.moved && result.meets_ports && (
        <Box>Legs and angles are moved as little as possible, so that both ports are still met.</Box>
      )}
      {!result.meets_ports && (
        <Box sx={{ color: "var(--stop)" }}>
          No line with this radius reaches both ports near the old path; take a smaller radius or another route.
        </Box>
      )}
      <Box>
        It strays at most <strong>{say(result.departure_mm)}</strong> from the old path
        {result.departure_bend != null && `, near bend ${result.departure_bend}`}.
      </Box>
      {result.surplus_mm > 0 && (
        <Box>
          It is <strong>{say(result.surplus_mm)}</strong> shorter than the old one.
          {result.bows.length > 0 &&
            ` A piece of the old length goes in with a bow of ${result.bows.map((bow) => `${say(bow.height_mm)} in straight ${bow.straight}`).join(", or ")}.`}
        </Box>
      )}
      {result.surplus_mm < 0 && <Box>It needs {say(-result.surplus_mm)} more tube than the old one.</Box>}
    </Box>
  );
}
