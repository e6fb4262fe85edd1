import Box from "@mui/material/Box";
import type { HoseStudy, Unit } from "../../../api/types";
import { sayFigure, sayLength } from "../../../format/units";
import { condensed } from "../../../theme/theme";
import { shownTo, zonesOf } from "./zones";

interface Props {
  windows: NonNullable<HoseStudy["windows"]>;
  needs: number;
  /** Hose that lies on its ends, which belongs to its length. */
  onEnds: number;
  length: number | null;
  unit: Unit;
  onLength: (mm: number) => void;
}

const TINT = { tight: "var(--stop)", keeps: "var(--good)" } as const;
const SAID = { tight: "too tight", keeps: "keeps its radius" } as const;

/** The lengths along a bar: where the hose keeps its radius, where not, and where this one stands. */
export function LengthBar({ windows, needs, onEnds, length, unit, onLength }: Props) {
  const first = windows.over[0]?.length_mm ?? 0;
  const last = shownTo(windows, length);
  const zones = zonesOf(windows, first, last);
  const share = (mm: number) => Math.min(1, Math.max(0, (mm - first) / Math.max(1e-9, last - first)));
  const said = windows.windows.map(
    (one) => `${sayLength(one.least.length_mm + onEnds, unit)} to ${sayLength(one.most.length_mm + onEnds, unit)}`,
  );
  const at = length === null ? null : share(length);
  return (
    <Box>
      <Box sx={{ fontWeight: 600 }}>
        {said.length ? `Right lengths: ${said.join(", or ")}` : "No length keeps its radius between these ends"}
      </Box>
      <Box sx={{ height: 24, position: "relative", fontFamily: condensed, fontWeight: 600, fontSize: 17 }}>
        {at !== null && length !== null && (
          <Box
            sx={{
              position: "absolute",
              left: `${at * 100}%`,
              whiteSpace: "nowrap",
              transform: at > 0.8 ? "translateX(calc(-100% + 6px))" : "translateX(-6px)",
            }}
          >
            {at > 0.8 ? `${sayLength(length + onEnds, unit)} ▼` : `▼ ${sayLength(length + onEnds, unit)}`}
          </Box>
        )}
      </Box>
      <Box
        role="img"
        aria-label={`Lengths that keep a radius of ${sayLength(needs, unit)}: ${said.join(", or ") || "none"}`}
        sx={{ position: "relative", display: "flex", height: 24, border: "1.5px solid var(--ink)" }}
      >
        {zones.map((zone) => (
          <Box
            key={zone.from_mm}
            data-zone={zone.is}
            sx={{
              width: `${(share(zone.to_mm) - share(zone.from_mm)) * 100}%`,
              background: `color-mix(in srgb, ${TINT[zone.is]} 14%, var(--sheet))`,
              color: "var(--ink)",
              overflow: "hidden",
              whiteSpace: "nowrap",
              pl: 0.75,
              fontSize: 14,
              fontWeight: 600,
              lineHeight: "21px",
            }}
          >
            {share(zone.to_mm) - share(zone.from_mm) > 0.24 && SAID[zone.is]}
          </Box>
        ))}
        {at !== null && (
          <Box
            sx={{ position: "absolute", left: `calc(${at * 100}% - 1.5px)`, top: -4, width: 3, height: 30 }}
            style={{ background: "var(--ink)" }}
          />
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
      <Box sx={{ display: "flex", justifyContent: "space-between", fontSize: 14, color: "var(--second)", mt: -0.5 }}>
        <span>{sayFigure(first + onEnds, unit)}</span>
        <span>{sayLength(last + onEnds, unit)}</span>
      </Box>
    </Box>
  );
}
