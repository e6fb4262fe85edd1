import Box from "@mui/material/Box";
import { condensed } from "../../../theme/theme";

const at = (degrees: number, r: number): [number, number] => {
  const a = (degrees * Math.PI) / 180;
  return [Math.sin(a) * r, -Math.cos(a) * r];
};

/** Two elbows seen along the hose from end A: the near one up, the far one where it points. */
export function Elbows({ degrees, words }: { degrees: number; words: string }) {
  const [x, y] = at(degrees, 62);
  const [tx, ty] = at(degrees, 80);
  const same = Math.min(degrees, 360 - degrees) < 12;
  const large = degrees > 180 ? 1 : 0;
  const [ex, ey] = at(degrees, 30);
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, my: 1 }}>
      <Box
        component="svg"
        viewBox="-95 -98 190 190"
        role="img"
        aria-label={`Far elbow ${Math.round(degrees)}° clockwise of the near one, seen from end A`}
        sx={{ width: 150, height: 150, flex: "none", fontFamily: condensed }}
      >
        <circle r={62} fill="none" stroke="var(--rule)" />
        {[0, 30, 60, 90, 120, 150, 180, 210, 240, 270, 300, 330].map((hour) => {
          const [x1, y1] = at(hour, hour % 90 === 0 ? 54 : 58);
          const [x2, y2] = at(hour, 62);
          return <line key={hour} x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--second)" />;
        })}
        <line x1={0} y1={0} x2={x} y2={y} stroke="var(--second)" strokeWidth={13} strokeLinecap="round" />
        <line x1={0} y1={0} x2={0} y2={-62} stroke="var(--ink)" strokeWidth={8} strokeLinecap="round" />
        <circle r={15} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={4} />
        {degrees > 4 && (
          <path d={`M 0 -30 A 30 30 0 ${large} 1 ${ex} ${ey}`} fill="none" stroke="var(--action)" strokeWidth={2.5} />
        )}
        <text
          x={same ? -16 : 0}
          y={-80}
          textAnchor="middle"
          dy="0.36em"
          fontSize={20}
          fontWeight={600}
          fill="var(--ink)"
        >
          A
        </text>
        <text
          x={same ? tx + 16 : tx}
          y={ty}
          textAnchor="middle"
          dy="0.36em"
          fontSize={20}
          fontWeight={600}
          fill="var(--ink)"
        >
          B
        </text>
      </Box>
      <Box>{words}</Box>
    </Box>
  );
}
