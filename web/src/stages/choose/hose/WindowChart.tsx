import Box from "@mui/material/Box";
import type { HoseStudy, Unit } from "../../../api/types";
import { sayFigure, sayLength } from "../../../format/units";
import { condensed } from "../../../theme/theme";

const W = 420;
const H = 132;
const LEFT = 44;
const LOW = 22;

interface Props {
  windows: NonNullable<HoseStudy["windows"]>;
  needs: number;
  /** Hose that lies on its ends, which belongs to its length. */
  onEnds: number;
  length: number | null;
  unit: Unit;
  onLength: (mm: number) => void;
}

/** The tightest radius over the length of the hose: which lengths keep the least, and where this one is. */
export function WindowChart({ windows, needs, onEnds, length, unit, onLength }: Props) {
  const over = windows.over;
  const [first, last] = [over[0]?.length_mm ?? 0, over[over.length - 1]?.length_mm ?? 1];
  const top = needs * 2;
  const x = (mm: number) => LEFT + ((mm - first) / (last - first)) * (W - LEFT - 8);
  const y = (radius: number) => H - LOW - (Math.min(radius, top) / top) * (H - LOW - 8);
  const curve = over.map((at) => `${x(at.length_mm).toFixed(1)},${y(at.radius_mm).toFixed(1)}`).join(" ");
  const nearest =
    length == null
      ? null
      : over.reduce((a, b) => (Math.abs(b.length_mm - length) < Math.abs(a.length_mm - length) ? b : a));
  const said = windows.windows.map(
    (one) => `${sayLength(one.least.length_mm + onEnds, unit)} to ${sayLength(one.most.length_mm + onEnds, unit)}`,
  );
  return (
    <Box>
      <Box sx={{ fontWeight: 600 }}>
        {said.length ? `Right lengths: ${said.join(", or ")}` : "No length keeps its radius between these ends"}
      </Box>
      {windows.windows.length > 0 && (
        <Box sx={{ fontSize: 14, color: "var(--second)" }}>
          It stands out{" "}
          {windows.windows
            .map((one) => `${sayLength(one.least.reach_mm, unit)} to ${sayLength(one.most.reach_mm, unit)}`)
            .join(", or ")}{" "}
          from the straight line between its ends.
        </Box>
      )}
      <Box
        component="svg"
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`Tightest radius by length; at least ${sayLength(needs, unit)} is needed`}
        sx={{ display: "block", width: "100%", mt: 0.5, fontFamily: condensed }}
      >
        {windows.windows.map((one) => (
          <rect
            key={one.least.length_mm}
            x={x(one.least.length_mm)}
            width={Math.max(2, x(one.most.length_mm) - x(one.least.length_mm))}
            y={8}
            height={H - LOW - 8}
            fill="var(--good)"
            opacity={0.2}
          />
        ))}
        <line x1={LEFT} x2={W - 8} y1={y(needs)} y2={y(needs)} stroke="var(--ink)" strokeDasharray="5 4" />
        <text x={LEFT - 4} y={y(needs)} dy="0.36em" textAnchor="end" fontSize={16} fill="var(--ink)">
          {sayFigure(needs, unit)}
        </text>
        <polyline points={curve} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <line x1={LEFT} x2={W - 8} y1={H - LOW} y2={H - LOW} stroke="var(--second)" />
        {[first, (first + last) / 2, last].map((mm, k) => (
          <text
            key={mm}
            x={x(mm)}
            y={H - 6}
            textAnchor={k === 0 ? "start" : k === 1 ? "middle" : "end"}
            fontSize={16}
            fill="var(--second)"
          >
            {sayLength(mm + onEnds, unit)}
          </text>
        ))}
        {nearest && length != null && (
          <>
            <line x1={x(length)} x2={x(length)} y1={8} y2={H - LOW} stroke="var(--ink)" strokeWidth={2} />
            <circle
              cx={x(length)}
              cy={y(nearest.radius_mm)}
              r={4.5}
              fill={nearest.radius_mm < needs ? "var(--stop)" : "var(--good)"}
              stroke="var(--sheet)"
            />
          </>
        )}
      </Box>
      <Box
        component="input"
        type="range"
        aria-label="Length of the hose"
        aria-valuetext={length == null ? "not chosen" : sayLength(length + onEnds, unit)}
        min={Math.ceil(first + onEnds)}
        max={Math.floor(last + onEnds)}
        step={1}
        value={Math.round((length ?? first) + onEnds)}
        onChange={(event) => onLength(Number(event.target.value))}
        sx={{ width: "100%", accentColor: "var(--ink)", minHeight: 28, "@media (pointer: coarse)": { minHeight: 44 } }}
      />
    </Box>
  );
}
