import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Derivation, Source } from "../api/types";
import { condensed } from "../theme/theme";

/** How one figure comes about: formula, inputs, result, and where each comes from. */
export function Working({ derivation, onClose }: { derivation: Derivation; onClose: () => void }) {
  return (
    <Box data-working={derivation.id}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "start" }}>
        <Typography variant="h2">{derivation.title}</Typography>
        <Button variant="text" size="small" onClick={onClose}>
          Findings
        </Button>
      </Box>
      <Box sx={{ my: 1, fontWeight: 500 }}>{derivation.formula}</Box>
      <Box component="dl" sx={{ m: 0 }}>
        {derivation.inputs.map((input) => (
          <Box key={input.name} sx={{ py: 0.75, borderTop: "1px solid var(--rule)" }}>
            <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
              <Box component="dt" sx={{ color: "var(--second)" }}>
                {input.name}
              </Box>
              <Box component="dd" sx={{ m: 0, fontWeight: 600, textAlign: "right" }}>
                {input.value}
              </Box>
            </Box>
            {input.source && <SourceLine source={input.source} />}
          </Box>
        ))}
      </Box>
      <Box
        sx={{
          display: "flex",
          justifyContent: "space-between",
          alignItems: "baseline",
          borderTop: "1.5px solid var(--ink)",
          pt: 1,
        }}
      >
        <span>result</span>
        <Box sx={{ font: `600 22px ${condensed}` }}>{derivation.result}</Box>
      </Box>
      <SourceLine source={derivation.source} />
    </Box>
  );
}

export function SourceLine({ source }: { source: Source }) {
  return (
    <Box sx={{ fontSize: 13, color: "var(--second)" }}>
      {source.kind}: {source.text}
    </Box>
  );
}
