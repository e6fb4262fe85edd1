import { useLayoutEffect, useRef, useState } from "react";
import Box from "@mui/material/Box";
import type { RunChart as Chart, Unit } from "../../api/types";
import { sayPressure } from "../../format/units";
import { condensed } from "../../theme/theme";

interface Props {
  chart: Chart;
  unit: Unit;
  /** Pressure that must not be reached, as the chart counts, and how long it must hold (s). */
  threshold: number | null;
  hold: number | null;
  settled: number | null;
}

const HEIGHT = 220;
const LEFT = 62;
const RIGHT = 26;
const TOP = 12;
const BOTTOM = 26;

/** A run of the gauge: the mean of each stretch as a line, its highest and lowest as a band, marks above. */
export function RunChart({ chart, unit, threshold, hold, settled }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(420);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(240, entry.contentRect.width)));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const { points } = chart;
  const last = points.at(-1);
  if (points.length < 2 || !last)
    return (
      <Box ref={box} sx={{ color: "var(--second)", py: 1 }}>
        {chart.run.recording ? "The first readings are on their way." : "No readings yet."}
      </Box>
    );
  // room for what is still to come, but a young run is not pressed against the edge
  const ends = Math.max(last.at_s, Math.min(hold ?? 0, last.at_s * 4));
  const all = points.flatMap((point) => [point.least, point.most]).concat(threshold === null ? [] : [threshold]);
  const low = Math.min(...all);
  const high = Math.max(...all);
  const room = Math.max((high - low) * 0.08, 0.5);
  const x = (seconds: number) => LEFT + (seconds / ends) * (width - LEFT - RIGHT);
  const y = (kpa: number) => TOP + ((high + room - kpa) / (high - low + 2 * room)) * (HEIGHT - TOP - BOTTOM);
  const course = points.map((point) => `${x(point.at_s).toFixed(1)} ${y(point.mean).toFixed(1)}`).join(" L");
  const band = [
    ...points.map((point) => `${x(point.at_s).toFixed(1)} ${y(point.most).toFixed(1)}`),
    ...[...points].reverse().map((point) => `${x(point.at_s).toFixed(1)} ${y(point.least).toFixed(1)}`),
  ].join(" L");
  const minutes = ends / 60;
  const every = [0.5, 1, 2, 5, 10, 20, 30, 60].find((step) => minutes / step <= 6) ?? 60;
  const ticks = Array.from({ length: Math.floor(minutes / every) + 1 }, (_, k) => k * every);
  return (
    <Box ref={box}>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Chart of the run: ${sayPressure(points[0]?.mean ?? 0, unit)} at first, ${sayPressure(last.mean, unit)} after ${(last.at_s / 60).toFixed(1)} minutes`}
        style={{ display: "block", fontFamily: condensed, background: "var(--sheet)" }}
        data-readings={chart.run.readings}
      >
        {settled !== null && settled > 0 && (
          <rect
            x={LEFT}
            y={TOP}
            width={Math.max(0, x(settled) - LEFT)}
            height={HEIGHT - TOP - BOTTOM}
            fill="var(--shadow)"
          />
        )}
        {[low, (low + high) / 2, high].map((kpa) => (
          <g key={kpa}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(kpa)} y2={y(kpa)} stroke="var(--rule)" />
            <text x={LEFT - 6} y={y(kpa) + 4} textAnchor="end" fontSize="13" fill="var(--second)">
              {sayPressure(kpa, unit)}
            </text>
          </g>
        ))}
        {ticks.map((minute) => (
          <text key={minute} x={x(minute * 60)} y={HEIGHT - 8} textAnchor="middle" fontSize="13" fill="var(--second)">
            {minute} min
          </text>
        ))}
        <path d={`M${band} Z`} fill="var(--note)" opacity={0.25} />
        <path d={`M${course}`} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
        {threshold !== null && (
          <line
            x1={LEFT}
            x2={width - RIGHT}
            y1={y(threshold)}
            y2={y(threshold)}
            stroke="var(--stop)"
            strokeWidth="1.5"
            strokeDasharray="6 4"
          />
        )}
        {chart.run.marks.map((mark) => (
          <g key={`${mark.at_s} ${mark.text}`}>
            <title>{mark.text}</title>
            <line x1={x(mark.at_s)} x2={x(mark.at_s)} y1={TOP} y2={HEIGHT - BOTTOM} stroke="var(--caution)" />
            <text x={x(mark.at_s) + 3} y={TOP + 10} fontSize="12" fill="var(--caution)">
              {mark.text.slice(0, 24)}
            </text>
          </g>
        ))}
      </svg>
    </Box>
  );
}
