import type { PlannedEnd } from "../../api/types";

interface Props {
  end: PlannedEnd;
  x: number;
  y: number;
  h: number;
  scale: number;
  towards: 1 | -1;
  held: boolean;
  /** How far, in pixels, tube that is left on reaches past the rim. */
  beyond: number;
}

/** One end of the tube on the strip: its flare, its nut at its true length, and its letter. */
export function EndMark({ end, x, y, h, scale, towards, held, beyond }: Props) {
  const nut = Math.max(10, end.nut_length_mm * scale);
  const flare = 7;
  const inward = (distance: number) => x - towards * distance;
  const { flared } = end;
  const letter = x + towards * (40 + beyond);
  return (
    <g data-end={end.end}>
      {end.nut && (
        <g>
          <rect
            x={Math.min(inward(flare), inward(flare + nut))}
            y={y - 5}
            width={nut}
            height={h + 10}
            fill="var(--nut)"
            stroke="var(--ink)"
          />
          <line
            x1={Math.min(inward(flare), inward(flare + nut))}
            x2={Math.max(inward(flare), inward(flare + nut))}
            y1={y + h / 3}
            y2={y + h / 3}
            stroke="var(--ink)"
            strokeWidth="0.8"
          />
          <line
            x1={Math.min(inward(flare), inward(flare + nut))}
            x2={Math.max(inward(flare), inward(flare + nut))}
            y1={y + (2 * h) / 3}
            y2={y + (2 * h) / 3}
            stroke="var(--ink)"
            strokeWidth="0.8"
          />
        </g>
      )}
      {flared && (
        <polygon
          points={
            end.kind === "bulb"
              ? bulb(x, y, h, inward, flare)
              : `${inward(flare)},${y + 2} ${x},${y - 5} ${x},${y + h + 5} ${inward(flare)},${y + h - 2}`
          }
          fill="var(--light)"
          stroke="var(--bend)"
        />
      )}
      {(end.kind === "hose" || end.kind === "quick") && (
        <rect
          x={Math.min(inward(6), inward(11))}
          y={y - 4}
          width={5}
          height={h + 8}
          rx={2}
          fill="var(--light)"
          stroke="var(--bend)"
        />
      )}
      {end.kind === "banjo" && <circle cx={x} cy={y + h / 2} r={h / 2 + 3} fill="var(--nut)" stroke="var(--ink)" />}
      {end.kind === "banjo" && <circle cx={x} cy={y + h / 2} r={h / 4} fill="var(--sheet)" stroke="var(--ink)" />}
      {held && (
        <text x={letter} y={y + 9} textAnchor="middle" fontSize="13" fill="var(--second)">
          held
        </text>
      )}
    </g>
  );
}

function bulb(x: number, y: number, h: number, inward: (distance: number) => number, flare: number): string {
  return `${inward(flare)},${y + 2} ${inward(flare / 2)},${y - 4} ${x},${y + 1} ${x},${y + h - 1} ${inward(flare / 2)},${y + h + 4} ${inward(flare)},${y + h - 2}`;
}
