import type { Looked } from "../../api/types";

interface Props {
  looked: Looked;
  /** Where a place of a span lies; a blank span is the tube that is worked on. */
  x: (span: string, mm: number) => number;
  y: number;
  h: number;
}

/** Damage under the tube and clips over it, where they were found on the old line. */
export function Found({ looked, x, y, h }: Props) {
  return (
    <g>
      <defs>
        <pattern id="damage" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--sheet)" />
          <rect width="4" height="8" fill="var(--stop)" />
        </pattern>
      </defs>
      {looked.damage.map((damage) => (
        <g key={damage.id} data-damage={damage.kind}>
          <rect
            x={x(damage.span, damage.from_mm) - 2}
            y={y + h + 1}
            width={Math.max(6, x(damage.span, damage.to_mm) - x(damage.span, damage.from_mm) + 4)}
            height={5}
            fill="url(#damage)"
          />
          {damage.depth === "through" && (
            <rect
              x={x(damage.span, damage.from_mm) - 1}
              y={y}
              width={Math.max(3, x(damage.span, damage.to_mm) - x(damage.span, damage.from_mm) + 2)}
              height={h}
              fill="url(#damage)"
            />
          )}
          <title>{`${damage.kind}, ${damage.depth}`}</title>
        </g>
      ))}
      {looked.fixtures.map((fixture) => (
        <g key={fixture.id} data-fixture={fixture.state}>
          <path
            d={`M${x(fixture.span, fixture.at_mm) - 7} ${y + 3} v-8 h14 v8`}
            fill="none"
            stroke="var(--note)"
            strokeWidth="2.2"
            strokeDasharray={fixture.state === "there" ? "none" : "3 2"}
          />
          <title>{`${fixture.kind}, ${fixture.state}`}</title>
        </g>
      ))}
    </g>
  );
}
