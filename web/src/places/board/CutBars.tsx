import Box from "@mui/material/Box";
import type { CutLine, TubeCuts, Unit } from "../../api/types";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";

const shortened = {
  px: 0.5,
  overflow: "hidden",
  whiteSpace: "nowrap",
  textOverflow: "ellipsis",
  font: `500 16px/31px ${condensed}`,
} as const;

/** How near to the best there is, where that is known. */
function over({ weighed_mm, bound_mm }: TubeCuts["cuts"]): string {
  if (bound_mm <= 0) return "";
  const percent = Math.max(0, (weighed_mm / bound_mm - 1) * 100);
  return percent < 0.05
    ? "; it cannot be done with less"
    : `; at most ${percent.toFixed(1)} % more than the least possible`;
}

/** The bars of one tube, to scale, with what is cut from each. */
export function CutBars({ tube, lines, unit }: { tube: TubeCuts; lines: readonly CutLine[]; unit: Unit }) {
  const { cuts } = tube;
  const named = new Map(lines.map((line) => [line.piece, line]));
  return (
    <Box data-cuts={tube.tube} sx={{ mt: 1.5 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", flexWrap: "wrap", columnGap: 2 }}>
        <Box sx={{ fontWeight: 600 }}>{tube.tube_name}</Box>
        <Box sx={{ color: "var(--second)", fontSize: 15 }}>
          {sayLength(cuts.opened_mm, unit)} begun,{" "}
          {cuts.bought_mm > 0 ? `${sayLength(cuts.bought_mm, unit)} of it to buy` : "nothing to buy"};{" "}
          {sayLength(cuts.waste_mm, unit)} lost
          {over(cuts)}
        </Box>
      </Box>
      {cuts.cuts.map((item, k) => (
        <Box key={`${item.bar} ${k}`} sx={{ mt: 0.5 }}>
          <Box sx={{ fontSize: 15 }}>
            {tube.bars[item.bar] ?? item.bar}, {sayLength(item.bar_mm, unit)}
          </Box>
          <Box sx={{ display: "flex", height: 34, border: "1.5px solid var(--ink)" }}>
            {item.pieces.map((id) => {
              const piece = named.get(id);
              const mm = piece?.mm ?? 0;
              return (
                <Box
                  key={id}
                  title={`${piece?.line}: ${sayLength(mm, unit)}`}
                  sx={{
                    ...shortened,
                    width: `${(mm / item.bar_mm) * 100}%`,
                    background: "var(--hand)",
                    borderRight: "2px solid var(--ink)",
                  }}
                >
                  {sayLength(mm, unit)} {piece?.line}
                </Box>
              );
            })}
            <Box sx={{ ...shortened, flex: 1, color: "var(--second)" }}>
              {item.left_mm > 0 && `${sayLength(item.left_mm, unit)} ${item.kept ? "kept" : "scrap"}`}
            </Box>
          </Box>
        </Box>
      ))}
      {cuts.missing.length > 0 && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          Too long for any stick: {cuts.missing.map((id) => named.get(id)?.line).join(", ")}.
        </Box>
      )}
    </Box>
  );
}
