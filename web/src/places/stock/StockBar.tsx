import Box from "@mui/material/Box";
import type { Stock } from "../../api/types";
import { sayMetres } from "../../format/amounts";
import { sayLength } from "../../format/units";
import { condensed } from "../../theme/theme";

export interface TakenFromBar {
  pieces: { line: string; mm: number }[];
  left: number;
}

/** A stick to the scale of the longest one beside it, or a coil by its metres, with what a cut list would take. */
export function StockBar({ row, longest, taken }: { row: Stock; longest: number; taken: readonly TakenFromBar[] }) {
  const coil = row.form === "coil";
  const share = coil ? 1 : row.length_mm / Math.max(1, longest);
  const bars = taken.length > 0 ? taken : [{ pieces: [], left: row.length_mm }];
  const said = bars.flatMap((bar) => bar.pieces.map((piece) => `${sayLength(piece.mm, "mm")} for ${piece.line}`));
  return (
    <Box
      role="img"
      aria-label={`${row.label}: ${coil ? `a coil of ${sayMetres(row.length_mm)}` : sayLength(row.length_mm, "mm")}${said.length > 0 ? `; would be cut: ${said.join(", ")}` : ""}`}
      sx={{ display: "grid", gap: "3px", py: 0.5 }}
    >
      {bars.map((bar, k) => (
        <Box key={k} sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
          {coil && <CoilMark />}
          <Box
            sx={{
              flex: "none",
              width: coil ? "calc(100% - 30px)" : `${share * 100}%`,
              height: 22,
              display: "flex",
              border: "1.5px solid var(--ink)",
              boxSizing: "border-box",
              overflow: "hidden",
              background: coil ? metres(row.length_mm) : "var(--tube)",
            }}
          >
            {bar.pieces.map((piece, n) => (
              <Box
                key={`${piece.line} ${n}`}
                title={`${piece.line}: ${sayLength(piece.mm, "mm")}`}
                sx={{
                  width: `${(piece.mm / row.length_mm) * 100}%`,
                  background: "var(--hand)",
                  color: "var(--ink)",
                  borderRight: "2px solid var(--ink)",
                  boxSizing: "border-box",
                  px: 0.25,
                  font: `500 14px/19px ${condensed}`,
                  overflow: "hidden",
                  whiteSpace: "nowrap",
                  textOverflow: "ellipsis",
                }}
              >
                {piece.line}
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** A stripe at every metre, so that a coil can be compared by eye. */
const metres = (mm: number): string => {
  const step = 100_000 / Math.max(1000, mm);
  return `repeating-linear-gradient(90deg, var(--tube) 0 calc(${step}% - 2px), var(--light) calc(${step}% - 2px) ${step}%)`;
};

function CoilMark() {
  return (
    <svg width="24" height="22" viewBox="-12 -11 24 22" aria-hidden="true" style={{ flex: "none" }}>
      {[9, 6.5, 4].map((r) => (
        <circle key={r} r={r} fill="none" stroke="var(--tube)" strokeWidth="1.6" />
      ))}
    </svg>
  );
}
