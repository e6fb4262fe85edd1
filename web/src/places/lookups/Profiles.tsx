import Box from "@mui/material/Box";
import type { Profile } from "../../api/types";
import { condensed } from "../../theme/theme";

interface Props {
  title: string;
  pair: Profile[];
  /** The second profile belongs to the hole around the first. */
  mated: boolean;
}

const WIDTH = 720;

/** Two thread profiles in axial section, on one scale, their first teeth together. */
export function Profiles({ title, pair, mated }: Props) {
  const [one, other] = pair;
  if (!one || !other) return null;
  const all = [...one.points, ...other.points];
  const longest = Math.max(...all.map((point) => point[0]));
  const low = Math.min(...all.map((point) => point[1]));
  const high = Math.max(...all.map((point) => point[1]));
  const scale = WIDTH / longest;
  const height = (high - low) * scale + 40;
  const at = (point: number[]) =>
    `${((point[0] ?? 0) * scale).toFixed(1)},${((high - (point[1] ?? 0)) * scale + 20).toFixed(1)}`;
  const solid = `0,${height} ${one.points.map(at).join(" ")} ${WIDTH},${height}`;
  return (
    <Box component="figure" sx={{ m: 0, mt: 1 }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${height.toFixed(0)}`}
        width="100%"
        style={{ maxWidth: WIDTH, display: "block", background: "var(--sheet)", border: "1px solid var(--rule)" }}
        role="img"
        aria-label={`${title}, drawn to scale`}
      >
        <polygon points={solid} fill="var(--hand)" />
        <polyline points={one.points.map(at).join(" ")} fill="none" stroke="var(--tube)" strokeWidth="2.4" />
        <polyline
          points={other.points.map(at).join(" ")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray={mated ? "none" : "7 4"}
        />
        <line x1={12} x2={12 + scale} y1={height - 10} y2={height - 10} stroke="var(--ink)" strokeWidth="2" />
        <text x={16 + scale} y={height - 5} fontSize="14" fill="var(--ink)" fontFamily={condensed}>
          1 mm
        </text>
      </svg>
      <Box component="figcaption" sx={{ fontSize: 14.5, color: "var(--second)" }}>
        {title}, to scale: <b>{one.designation}</b> filled, <b>{other.designation}</b>{" "}
        {mated ? "the hole around it" : "dashed"}.
      </Box>
    </Box>
  );
}
