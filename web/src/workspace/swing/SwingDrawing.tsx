import type { SwingView } from "../../api/types";

type Point = [number, number];
type Standing = SwingView["standings"][number];

/** Around the tube, how much of bench, wall and tool is drawn, in mm. */
const AROUND = 70;

/** From above and from the front, to one scale, in the manner of a shop drawing. */
export function SwingDrawing({ view, standing }: { view: SwingView; standing: Standing }) {
  const all = [...view.clamped, ...view.standings.flatMap((s) => s.free)];
  const range = (axis: 0 | 1 | 2) => {
    const values = all.map((point) => point[axis]);
    return { low: Math.min(...values, -AROUND / 2) - AROUND, high: Math.max(...values, AROUND / 2) + AROUND };
  };
  const [x, y, z] = [range(0), range(1), range(2)];
  const [long, deep, high] = [x.high - x.low, y.high - y.low, z.high - z.low];
  // one under the other, or beside one another: whichever is drawn larger on a stage half as wide again as high
  const gap = Math.max(long, deep + high) / 12;
  const beside = Math.max((2 * long + gap) / 1.5, Math.max(deep, high)) < Math.max(long / 1.5, deep + high + gap);
  const wide = beside ? 2 * long + gap : long;
  const tall = beside ? Math.max(deep, high) : deep + high + gap;
  const line = Math.max(view.od_mm, wide / 260, tall / 170);
  const text = Math.max(wide / 44, tall / 29);
  const [frontX, frontY] = beside ? [long + gap, 0] : [0, deep + gap];
  // from above y points up, from the front z
  const above = (point: readonly number[]): Point => [(point[0] ?? 0) - x.low, y.high - (point[1] ?? 0)];
  const front = (point: readonly number[]): Point => [
    frontX + (point[0] ?? 0) - x.low,
    frontY + z.high - (point[2] ?? 0),
  ];
  const clip = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
  const phi = (standing.deg * Math.PI) / 180;
  const turned = (px: number, py: number): number[] => {
    const [dx, dy] = [px, py - view.radius_mm];
    return [Math.cos(phi) * dx - Math.sin(phi) * dy, Math.sin(phi) * dx + Math.cos(phi) * dy + view.radius_mm];
  };
  const path = (points: readonly (readonly number[])[], to: (point: readonly number[]) => Point) =>
    points
      .map((point) =>
        to(point)
          .map((v) => v.toFixed(1))
          .join(","),
      )
      .join(" ");
  const [cx, cy] = above([0, view.radius_mm]);
  const hit = view.hit_at ?? null;
  return (
    <svg
      viewBox={`0 0 ${wide} ${tall}`}
      width="100%"
      height="100%"
      role="img"
      aria-label={`The bend at ${Math.round(standing.deg)} degrees, from above and from the front`}
      preserveAspectRatio="xMidYMid meet"
    >
      {view.blocks.map((block, k) => {
        const low: number[] = block.low.map((v, i) => clip(v, [x, y, z][i]?.low ?? v, [x, y, z][i]?.high ?? v));
        const top: number[] = block.high.map((v, i) => clip(v, [x, y, z][i]?.low ?? v, [x, y, z][i]?.high ?? v));
        const [lx = 0, ly = 0, lz = 0] = low;
        const [hx = 0, hy = 0, hz = 0] = top;
        if (hx <= lx || hy <= ly || hz <= lz) return null;
        const corners = block.swings
          ? [turned(lx, ly), turned(hx, ly), turned(hx, hy), turned(lx, hy)]
          : [
              [lx, ly],
              [hx, ly],
              [hx, hy],
              [lx, hy],
            ];
        const [fx, fy] = front([lx, 0, hz]);
        const under = block.name === "floor" || block.name === "bench";
        const [ax, ay] = above((under ? corners[0] : corners[3]) ?? [0, 0]);
        return (
          <g key={`${block.name} ${k}`}>
            <polygon
              points={path(corners, above)}
              fill={under ? "var(--paper)" : "var(--nut)"}
              stroke="var(--second)"
              strokeWidth={line / 5}
              fillOpacity={under ? 1 : 0.75}
            />
            {!block.swings && (
              <rect
                x={fx}
                y={fy}
                width={hx - lx}
                height={Math.max(hz - lz, 0.5)}
                fill="var(--nut)"
                fillOpacity={0.75}
                stroke="var(--second)"
                strokeWidth={line / 5}
              />
            )}
            {hx - lx > text * 3 && (
              <text
                x={ax + text * 0.3}
                y={ay + text * (!under && ay < text ? 1.1 : -0.3)}
                fontSize={text * 0.85}
                fill="var(--second)"
              >
                {block.name}
              </text>
            )}
          </g>
        );
      })}
      <circle
        cx={cx}
        cy={cy}
        r={Math.max(view.radius_mm - view.od_mm / 2, 1)}
        fill="var(--nut)"
        stroke="var(--ink)"
        strokeWidth={line / 4}
      />
      {[above, front].map((to, k) => (
        <g key={k} fill="none" strokeLinecap="round" strokeLinejoin="round" strokeWidth={line}>
          <polyline
            points={path(view.standings[0]?.free ?? [], to)}
            stroke="var(--light)"
            strokeOpacity={0.45}
            strokeDasharray={`${line} ${line * 2}`}
            strokeWidth={line / 2}
          />
          <polyline points={path(view.clamped, to)} stroke="var(--bend)" />
          <polyline points={path(standing.free, to)} stroke="var(--tube)" />
          {hit && (
            <circle cx={to(hit)[0]} cy={to(hit)[1]} r={text * 0.9} stroke="var(--stop)" strokeWidth={line / 2.2} />
          )}
        </g>
      ))}
      <line
        x1={beside ? long + gap / 2 : 0}
        x2={beside ? long + gap / 2 : wide}
        y1={beside ? 0 : deep + gap / 2}
        y2={beside ? tall : deep + gap / 2}
        stroke="var(--rule)"
        strokeWidth={line / 5}
      />
      <text x={text * 0.4} y={text * 1.1} fontSize={text} fill="var(--ink)">
        from above
      </text>
      <text
        x={frontX + text * 0.4}
        y={beside ? text * 1.1 : frontY - gap / 2 + text * 1.2}
        fontSize={text}
        fill="var(--ink)"
      >
        from the front
      </text>
    </svg>
  );
}
