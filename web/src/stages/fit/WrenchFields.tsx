import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, newerThan, sentence, take } from "../../api/client";
import type { Closing, Unit } from "../../api/types";
import { useCatalogue } from "../../doc/useCatalogue";
import { Typed } from "../../ui/Entry";
import { Section } from "../../ui/Section";

/** The shop's own torque wrench and crowfoot: every setting is worked out for them. */
export function WrenchFields({ wrench, unit, saved }: { wrench: Closing["wrench"]; unit: Unit; saved: () => void }) {
  const [length, setLength] = useState(`${wrench.length_mm} mm`);
  const [offset, setOffset] = useState(`${wrench.offset_mm} mm`);
  const [problem, setProblem] = useState("");
  const client = useQueryClient();
  const catalogue = useCatalogue();
  const [newer, setNewer] = useState<number | null>(null);
  const version = newer ?? catalogue?.ways_version ?? 0;
  const keep = () =>
    void take(api.PUT("/api/shop/wrench", { params: { query: { version } }, body: { length, offset, unit } }))
      .then(async () => {
        setProblem("");
        setNewer(null);
        await client.invalidateQueries({ queryKey: ["catalogue"] });
        saved();
      })
      .catch((error: unknown) => {
        setProblem(sentence(error));
        setNewer(newerThan(error));
      });
  return (
    <Section
      title="Torque wrench with a crowfoot"
      hint="From the middle of the grip to the square, and from the square to the nut. In line it lengthens the wrench; at a right angle nothing changes."
      open={false}
    >
      <Box sx={{ display: "flex", gap: 0.5, alignItems: "center", flexWrap: "wrap" }}>
        <Typed label="Wrench, grip to square" text={length} placeholder="300 mm" width={110} onText={setLength} />
        <Typed label="Crowfoot, square to nut" text={offset} placeholder="30 mm" width={110} onText={setOffset} />
        <Button size="small" onClick={keep} disabled={!catalogue}>
          {newer === null ? "Keep for this shop" : "Put mine in its place"}
        </Button>
      </Box>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      )}
    </Section>
  );
}
