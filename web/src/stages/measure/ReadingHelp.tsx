import Box from "@mui/material/Box";
import { memo } from "react";

/** A sketch of the six places at which a leg can be read. */
export const ReadingHelp = memo(function ReadingHelp() {
  return (
    <Box
      component="details"
      sx={{
        borderTop: "1px solid var(--rule)",
        "& summary": { cursor: "pointer", "@media (pointer: fine)": { minHeight: 36 } },
      }}
    >
      <summary>Where a leg is read</summary>
      <svg viewBox="0 0 320 210" width="100%" role="img" aria-label="A bend with the places at which a leg is read">
        <path d="M20 150 H170 A50 50 0 0 0 220 100 V30" fill="none" stroke="var(--tube)" strokeWidth="24" />
        <path d="M20 150 H220 V30" fill="none" stroke="var(--ink)" strokeDasharray="3 4" />
        <path d="M182 138 H208 M208 138 V112 M200 162 H232 V132" fill="none" stroke="var(--ink)" strokeWidth="1" />
        <g fill="var(--ink)" fontSize="14" fontFamily="Barlow">
          <circle cx="220" cy="150" r="3.5" />
          <text x="240" y="146">
            centre
          </text>
          <circle cx="232" cy="162" r="3.5" />
          <text x="240" y="168">
            out
          </text>
          <circle cx="208" cy="138" r="3.5" />
          <text x="188" y="128" textAnchor="end">
            in
          </text>
          <path d="M170 136 V186" stroke="var(--ink)" />
          <text x="170" y="202" textAnchor="middle">
            start
          </text>
          <text x="22" y="186">
            rim of end A
          </text>
          <path d="M20 136 V170" stroke="var(--ink)" />
        </g>
      </svg>
      <Box sx={{ fontSize: 14, color: "var(--second)" }}>
        <em>Out</em> and <em>in</em> are the corners that straight-edges along back and inside would meet at. Over 90° a
        tape hooked over the
        <em> back</em> or in the <em>hollow</em> reads something else; a hairpin has only that. Along a Z one end reads
        out, the other in.
      </Box>
    </Box>
  );
});
