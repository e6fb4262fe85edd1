import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Field } from "../../ui/Field";
import { condensed } from "../../theme/theme";
import { Ask } from "./Ask";
import { useAsked } from "../../doc/useAsked";

/** Which wrenches of either system go on a hex. */
export function WrenchLookup() {
  const [hex, setHex] = useState("1 3/8");
  const order = { hex, unit: "mm" as const };
  const { answer, problem } = useAsked(
    ["wrench", order],
    (signal) => take(api.POST("/api/lookups/wrench", { body: order, signal })),
    { wanted: hex.trim() !== "" },
  );
  return (
    <Ask
      hint="The hex across its flats. A wrench is usable from a hair tight to 1.5 % loose; more rounds the corners. On tube nuts a flare-nut wrench, and a second one to hold."
      problem={problem}
      answer={
        answer && (
          <>
            <Box sx={{ color: "var(--second)", mb: 1 }}>{answer.hex_mm.toFixed(2)} mm across flats</Box>
            {answer.wrenches.length === 0 && (
              <Box sx={{ color: "var(--stop)" }}>
                No wrench of either system fits; measure again, or the hex is worn.
              </Box>
            )}
            {answer.wrenches.map((wrench) => (
              <Box
                key={wrench.wrench}
                data-wrench={wrench.wrench}
                sx={{ display: "flex", gap: 2, py: 0.75, borderTop: "1px solid var(--rule)" }}
              >
                <Box sx={{ font: `600 20px ${condensed}`, minWidth: 100 }}>{wrench.wrench}</Box>
                <Box>
                  {wrench.fit}
                  {wrench.fit === "usable" &&
                    `, ${Math.abs(wrench.play_mm).toFixed(2)} mm ${wrench.play_mm < 0 ? "tight" : "loose"}`}
                </Box>
              </Box>
            ))}
          </>
        )
      }
    >
      <Field
        label="Hex"
        text={hex}
        placeholder="1 3/8 or 35 mm"
        takes="length"
        onText={(text) => setHex(text.slice(0, 40))}
      />
    </Ask>
  );
}
