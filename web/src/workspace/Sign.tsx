import type { ComponentSpan } from "../api/types";
import { useCatalogue } from "../doc/useCatalogue";

const ink = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.6 } as const;
const body = { fill: "var(--nut)", stroke: "var(--ink)", strokeWidth: 1.6 } as const;

interface Props {
  what: ComponentSpan["what"];
  x: number;
  y: number;
  /** Where its arrow points, under the sign; none where it is not marked. */
  points?: "A" | "B" | undefined;
}

/** A component by our own sign of its kind, from the catalogue's data, inside an SVG. */
export function Sign({ what, x, y, points }: Props) {
  const sign = useCatalogue()?.signs.find((one) => one.what === what);
  return (
    <g transform={`translate(${x} ${y})`} data-sign={what}>
      {sign?.circle && <circle cx={sign.circle[0]} cy={sign.circle[1]} r={sign.circle[2]} {...body} />}
      {sign?.lines.map((line, k) => {
        const d = `M${line.points.map((point) => point.join(" ")).join(" L")}${line.closed ? " Z" : ""}`;
        return <path key={k} d={d} {...(line.closed ? body : ink)} strokeDasharray={line.dashed ? "2 2" : undefined} />;
      })}
      {points && <path d={points === "B" ? "M-9 19 H9 m-5 -4 l5 4 l-5 4" : "M9 19 H-9 m5 -4 l-5 4 l5 4"} {...ink} />}
    </g>
  );
}
