interface Props {
  x: number;
  y: number;
  r: number;
  degrees: number;
  chosen?: boolean;
}

/** A clock face seen from end A: the hand shows where the bend lies. Drawn inside an SVG. */
export function Clock({ x, y, r, degrees, chosen = false }: Props) {
  const ticks = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];
  const hand = polar(degrees, r * 0.72);
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r={r} fill={chosen ? "var(--ink)" : "var(--sheet)"} stroke="var(--ink)" strokeWidth="1.3" />
      {ticks.map((hour) => {
        const outer = polar(hour * 30, r - 1);
        const inner = polar(hour * 30, r - (hour % 3 === 0 ? 4 : 2.4));
        return (
          <line
            key={hour}
            x1={outer.x}
            y1={outer.y}
            x2={inner.x}
            y2={inner.y}
            stroke={chosen ? "var(--paper)" : "var(--ink)"}
            strokeWidth="0.9"
          />
        );
      })}
      <line
        x1="0"
        y1="0"
        x2={hand.x}
        y2={hand.y}
        stroke={chosen ? "var(--paper)" : "var(--ink)"}
        strokeWidth="2.6"
        strokeLinecap="round"
      />
    </g>
  );
}

function polar(degrees: number, r: number): { x: number; y: number } {
  const a = (degrees * Math.PI) / 180;
  return { x: Math.sin(a) * r, y: -Math.cos(a) * r };
}
