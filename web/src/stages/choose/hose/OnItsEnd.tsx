import Box from "@mui/material/Box";
import type { Catalogue, Unit } from "../../../api/types";
import { sayLength } from "../../../format/units";
import { condensed } from "../../../theme/theme";

type Clamp = Catalogue["clamps"][number];

interface Props {
  clamp: Clamp | undefined;
  count: number;
  on: { on_mm: number; bare: boolean; over_mm: number };
  /** How far it lies on it, and what its clamps want of that, in mm. */
  lap: { mm: number; clamps_mm: number };
  /** Free hose beside every clamp, in mm. */
  gap: number;
  unit: Unit;
}

/** One end of a hose on its tube to scale: the overlap, the bead or groove, the clamps where they sit. */
export function OnItsEnd({ clamp, count, on, lap: lies, gap, unit }: Props) {
  const lap = lies.mm;
  const long = lap + 34;
  const tube = on.on_mm / 2;
  const over = on.over_mm / 2;
  const wide = clamp?.width_mm ?? 0;
  const bead = on.bare ? 0 : Math.max(1.2, tube * 0.14);
  const places = Array.from({ length: clamp ? count : 0 }, (_, k) => {
    // from the hose's own end inwards, a bead or a first groove lying in front of them all
    const first = 20 + lap - gap - wide;
    return first - k * (wide + gap);
  });
  const fits = lies.clamps_mm <= lap + 1e-9;
  const squeeze = clamp ? on.over_mm - clamp.closed_mm : 0;
  const high = over + 7;
  return (
    <Box sx={{ mt: 1 }}>
      <Box
        component="svg"
        viewBox={`0 ${-high} ${long + 10} ${2 * high}`}
        role="img"
        aria-label="The hose on its end, to scale"
        sx={{ display: "block", width: "100%", maxHeight: 130, fontFamily: condensed }}
      >
        <rect x={20} y={-tube} width={long} height={2 * tube} fill="var(--tube)" />
        <rect x={20} y={-tube + tube * 0.3} width={long} height={tube * 0.5} fill="var(--light)" />
        {bead > 0 && (
          <ellipse cx={24} cy={0} rx={2} ry={tube + bead} fill="var(--tube)" stroke="var(--bend)" strokeWidth={0.5} />
        )}
        {on.bare &&
          [26, 31, 36].map((x) => (
            <line
              key={x}
              x1={x}
              x2={x}
              y1={-tube}
              y2={tube}
              stroke="var(--bend)"
              strokeWidth={0.8}
              strokeDasharray="1.5 1"
            />
          ))}
        <rect
          x={4}
          y={-over}
          width={16 + lap}
          height={2 * over}
          fill="var(--ink)"
          fillOpacity={0.28}
          stroke="var(--ink)"
          strokeWidth={0.7}
        />
        {places.map((x) => (
          <rect
            key={x}
            x={x}
            y={-over - 1.4}
            width={wide}
            height={2 * over + 2.8}
            fill="var(--nut)"
            fillOpacity={0.85}
            stroke={fits ? "var(--ink)" : "var(--stop)"}
            strokeWidth={0.8}
          />
        ))}
      </Box>
      <Box sx={{ fontSize: 14, color: "var(--second)" }}>
        To scale: {sayLength(lap, unit)} of overlap
        {on.bare ? ", a few shallow grooves in the bare tube" : ", the clamps behind the bead"}.
        {clamp && (
          <>
            {" "}
            The clamp goes from {sayLength(clamp.open_mm, unit)} open to {sayLength(clamp.closed_mm, unit)} closed; the
            hose measures {sayLength(on.over_mm, unit)}:{" "}
            <Box
              component="span"
              sx={{ color: squeeze > 0 && on.over_mm <= clamp.open_mm ? "inherit" : "var(--stop)" }}
            >
              {on.over_mm > clamp.open_mm
                ? "it does not go over it"
                : squeeze > 0
                  ? `${sayLength(squeeze, unit)} are left to squeeze`
                  : "it closes without gripping"}
            </Box>
            .{!fits && ` ${count} of them want ${sayLength(lies.clamps_mm, unit)}.`}
          </>
        )}
      </Box>
    </Box>
  );
}
