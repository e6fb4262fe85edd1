import { useSelection } from "../../doc/select";
import { TUBE_H, TUBE_Y } from "./along";
import type { Layout } from "./layout";

const SIGN: Record<string, string> = { dry: "✓", wet: "!", drying: "…", look: "?", mended: "…" };
const INK: Record<string, string> = { dry: "var(--good)", wet: "var(--stop)", open: "var(--second)" };

/** How each joint stands, under its place on the line: a sign and a colour, the words beside it. */
export function Watched({ layout }: { layout: Layout }) {
  const { joints, joint, chooseJoint } = useSelection();
  return (
    <>
      {joints.map((one) => {
        const segment = layout.segments.find((span) => span.id === one.span);
        if (!segment) return null;
        // inside its own span, so that the two nuts of a union stand side by side
        const x = one.end === "A" ? segment.x + 9 : segment.x + segment.width - 9;
        const here = joint === one.id;
        const colour = INK[one.state] ?? "var(--caution)";
        return (
          <g
            key={one.id}
            data-watched={one.id}
            data-state={one.state}
            onClick={() => chooseJoint(here ? "" : one.id)}
            style={{ cursor: "pointer" }}
          >
            <title>{one.said}</title>
            <rect x={x - 12} y={TUBE_Y + TUBE_H + 4} width={24} height={30} fill="transparent" />
            <circle
              cx={x}
              cy={TUBE_Y + TUBE_H + 18}
              r={9}
              fill={here ? colour : "var(--sheet)"}
              stroke={colour}
              strokeWidth={2}
            />
            <text
              x={x}
              y={TUBE_Y + TUBE_H + 22.5}
              textAnchor="middle"
              fontSize="13"
              fontWeight={600}
              fill={here ? "var(--sheet)" : colour}
            >
              {SIGN[one.state] ?? "·"}
            </text>
          </g>
        );
      })}
    </>
  );
}
