import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { Catalogue } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { sayPressure } from "../../format/units";
import { Ask } from "./Ask";
import { useAsked } from "../../doc/useAsked";

/** Burst and allowed pressure of a tube, straight or bent, cold or hot. */
export function StrengthLookup({ catalogue }: { catalogue: Catalogue }) {
  const [tube, setTube] = useState(catalogue.tubes[0]?.id ?? "");
  const [radius, setRadius] = useState("");
  const [temperature, setTemperature] = useState("20 °C");
  const [factor, setFactor] = useState("4");
  const order = { tube, radius, temperature, factor: Number(factor) || 0, unit: "mm" as const };
  const { answer, problem } = useAsked(["strength", order], (signal) =>
    take(api.POST("/api/lookups/strength", { body: order, signal })),
  );
  const name = (id: string) => catalogue.materials.find((row) => row.id === id)?.name ?? id;
  const strength = answer?.strength;
  const rows: [string, number | null | undefined][] = strength
    ? [
        ["Allowed", strength.allowed_kpa],
        ["Bursts", strength.burst_kpa],
        [
          strength.by === "piping" ? "Thick-wall formula, for information" : "Piping formula, for information",
          strength.other_kpa,
        ],
      ]
    : [];
  return (
    <Ask
      hint="Barlow on the outside diameter, with the least wall by tolerance, thinned on the back of the bend, at the temperature."
      problem={problem}
      answer={
        strength && (
          <>
            {strength.share == null && (
              <Box sx={{ color: "var(--stop)", font: `600 22px ${condensed}` }}>Too hot for this material.</Box>
            )}
            {rows.map(([label, kpa]) => (
              <Box
                key={label}
                sx={{
                  display: "flex",
                  justifyContent: "space-between",
                  gap: 2,
                  py: 0.75,
                  borderTop: "1px solid var(--rule)",
                  maxWidth: 560,
                }}
              >
                <span>{label}</span>
                <Box sx={{ font: `600 20px ${condensed}` }}>
                  {kpa == null ? "–" : `${sayPressure(kpa, "mm")}, ${sayPressure(kpa, "in")}`}
                </Box>
              </Box>
            ))}
            <Box sx={{ color: "var(--second)", mt: 1 }}>
              Least wall {strength.wall_mm.toFixed(3)} mm
              {strength.share != null && `, ${(strength.share * 100).toFixed(0)} % of the strength left at this heat`}.
            </Box>
            <SourceLine source={answer.source} />
          </>
        )
      }
    >
      <Pick
        label="Tube"
        value={tube}
        options={catalogue.tubes.map((row) => ({
          id: row.id,
          name: `${name(row.material)} ${row.size} × ${row.wall_mm}`,
        }))}
        onChange={setTube}
      />
      <Field
        label="Bent to"
        text={radius}
        placeholder="straight"
        takes="length"
        onText={(text) => setRadius(text.slice(0, 40))}
      />
      <Field label="At" text={temperature} onText={(text) => setTemperature(text.slice(0, 40))} />
      <Field label="Design factor" text={factor} onText={setFactor} />
    </Ask>
  );
}
