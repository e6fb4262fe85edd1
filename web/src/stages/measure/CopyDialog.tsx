import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { CopyOrder } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { Segments } from "../../ui/Segments";
import { spanOf } from "../../doc/rows";
import type { Asked } from "./TakeDialog";
import { TakeDialog } from "./TakeDialog";
import { useAsked } from "../../doc/useAsked";

/** Take the readings of another line: its mirror image, a neighbour at a distance, or as they are. */
export function CopyDialog(asked: Asked) {
  const { document: line, opened, tube } = asked.editor;
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => take(api.GET("/api/jobs")) });
  const others = (jobs.data ?? []).flatMap((job) =>
    job.lines.filter((row) => row.id !== opened.id).map((row) => ({ id: row.id, name: `${row.name} (${job.name})` })),
  );
  const readings = spanOf(line, tube).readings;
  const blank = readings.kind === "bends" && readings.rows.length === 0;
  const [source, setSource] = useState("");
  const [order, setOrder] = useState<CopyOrder>({
    how: "mirror",
    spacing: "",
    clock: "12:00",
    nested: false,
    end: "B",
    longer: "",
    choices: blank,
  });
  const set = (change: Partial<CopyOrder>) => setOrder((was) => ({ ...was, ...change }));
  const waiting = order.how === "neighbour" && order.spacing.trim() === "";
  const { answer: made, problem } = useAsked(
    ["copy", line, source, order, tube],
    (signal) => take(api.POST("/api/copy", { body: { document: line, source, order, span: tube }, signal })),
    { wanted: source !== "" && !waiting },
  );

  return (
    <TakeDialog {...asked} title="Readings from another line" take="Take these readings" made={made?.document ?? null}>
      <Pick label="Line" value={source} options={others} onChange={setSource} />
      <Box sx={{ my: 1 }}>
        <Segments
          label="How"
          value={order.how}
          options={[
            { value: "mirror", text: "mirror image" },
            { value: "neighbour", text: "neighbour" },
            { value: "same", text: "as it is" },
          ]}
          onChange={(how) => set({ how })}
        />
      </Box>
      {order.how === "neighbour" && (
        <>
          <Field
            label="Spacing"
            text={order.spacing}
            placeholder="centre to centre, such as 12 mm"
            onText={(spacing) => set({ spacing: spacing.slice(0, 40) })}
          />
          <Field
            label="On its side"
            text={order.clock}
            placeholder="clock seen from A, 3:00"
            onText={(clock) => set({ clock: clock.slice(0, 40) })}
          />
          <Pick
            label="Bends"
            value={order.nested ? "nested" : "die"}
            options={[
              { id: "die", name: "the same die; they part a little at bends" },
              { id: "nested", name: "about the same centres; other radii" },
            ]}
            onChange={(id) => set({ nested: id === "nested" })}
          />
        </>
      )}
      <Field
        label={`End ${order.end} longer`}
        text={order.longer}
        placeholder="blank: as long; -10 mm: shorter"
        onText={(longer) => set({ longer: longer.slice(0, 40) })}
      />
      <Pick
        label="At"
        value={order.end}
        options={[
          { id: "A", name: "end A" },
          { id: "B", name: "end B" },
        ]}
        onChange={(id) => set({ end: id === "A" ? "A" : "B" })}
      />
      <Pick
        label="Also take"
        value={order.choices ? "all" : "none"}
        options={[
          { id: "all", name: "its tube, bender and ends" },
          { id: "none", name: "nothing else" },
        ]}
        onChange={(id) => set({ choices: id === "all" })}
      />
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", mt: 1 }}>
          {problem}
        </Box>
      )}
      {made && (
        <Box role="status" sx={{ mt: 1 }}>
          This line becomes a {made.understood}. Undo brings its own readings back.
        </Box>
      )}
    </TakeDialog>
  );
}
