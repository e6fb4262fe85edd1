import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { Unit } from "../../api/types";
import { useCatalogue } from "../../doc/useCatalogue";
import { sayLength } from "../../format/units";
import { Field, Pick } from "../../ui/Field";
import { MendWay } from "../../ui/MendWay";
import { Segments } from "../../ui/Segments";
import { Ask } from "./Ask";
import { useAsked } from "../../doc/useAsked";

const UNITS: { value: Unit; text: string }[] = [
  { value: "mm", text: "mm" },
  { value: "in", text: "inch" },
];

/** A gap in a line that nobody has drawn: from the gap, two diameters and the service, every way over it. */
export function GapLookup() {
  const catalogue = useCatalogue();
  const [unit, setUnit] = useState<Unit>("mm");
  const [gap, setGap] = useState("");
  const [tubeA, setTubeA] = useState("");
  const [tubeB, setTubeB] = useState("");
  const [room, setRoom] = useState("");
  const [bodies, setBodies] = useState(false);
  const [material, setMaterial] = useState("");
  const [service, setService] = useState("unspecified");
  const [opened, setOpened] = useState<string | null>(null);
  const order = { gap, tube_a: tubeA, tube_b: tubeB, room, bodies, material, service, unit };
  const { answer, problem } = useAsked(
    ["gap", order],
    (signal) => take(api.POST("/api/mend/gap", { body: order, signal })),
    { wanted: gap.trim() !== "" && tubeA.trim() !== "" },
  );
  const open = answer?.offers.find((one) => one.method === opened) ?? answer?.offers[0];
  return (
    <Ask
      hint="Without any drawing: what goes over a gap, and how long it is cut. Read the gap with a rule, between the cut faces or between the bodies of the two unions."
      problem={problem}
      answer={
        answer && (
          <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none", maxWidth: 620 }}>
            {answer.offers.map((one) => (
              <MendWay
                key={one.method}
                offer={one}
                way={answer.methods.find((row) => row.id === one.method)}
                unit={unit}
                open={one === open}
                onOpen={() => setOpened(one.method)}
                told={one.piece_mm == null ? "" : sayLength(one.piece_mm, unit)}
              />
            ))}
          </Box>
        )
      }
    >
      <Box sx={{ mb: 1 }}>
        <Segments label="Bare numbers are" value={unit} options={UNITS} onChange={setUnit} />
      </Box>
      <Pick
        label="It carries"
        value={service}
        options={(catalogue?.services ?? []).map(({ id, name }) => ({ id, name }))}
        onChange={setService}
      />
      <Field label="Gap" text={gap} placeholder="90" takes="length" onText={setGap} />
      <Pick
        label="Read between"
        value={bodies ? "bodies" : "faces"}
        options={[
          { id: "faces", name: "the two cut faces" },
          { id: "bodies", name: "the two union bodies" },
        ]}
        onChange={(id) => setBodies(id === "bodies")}
      />
      <Field label="Tube, A side" text={tubeA} placeholder="outside, 8" takes="length" onText={setTubeA} />
      <Pick
        label="Tube is of"
        value={material}
        options={[
          { id: "", name: "not said: told for the best" },
          ...(catalogue?.materials ?? []).map(({ id, name }) => ({ id, name })),
        ]}
        onChange={setMaterial}
      />
      <Field label="Tube, B side" text={tubeB} placeholder="as on the A side" takes="length" onText={setTubeB} />
      <Field label="Free round it" text={room} placeholder="to swing tools" takes="length" onText={setRoom} />
    </Ask>
  );
}
