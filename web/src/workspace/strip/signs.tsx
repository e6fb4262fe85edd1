import type { ReactNode } from "react";
import type { ComponentSpan } from "../../api/types";

type What = ComponentSpan["what"];

const ink = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.6 } as const;
const body = { fill: "var(--nut)", stroke: "var(--ink)", strokeWidth: 1.6 } as const;

/** Our own sign of every kind of component, in a box 40 wide and 28 high about its middle; told apart without colour. */
const SIGNS: Record<What, ReactNode> = {
  filter: (
    <>
      <rect x={-18} y={-11} width={36} height={22} {...body} />
      <path d="M-8 -11 V11 M0 -11 V11 M8 -11 V11" {...ink} strokeDasharray="2 2" />
    </>
  ),
  cooler: (
    <>
      <rect x={-19} y={-13} width={38} height={26} {...body} />
      <path d="M-19 -7 H13 V0 H-13 V7 H19" {...ink} />
    </>
  ),
  "check valve": (
    <>
      <circle r={12} {...body} />
      <path d="M-6 -7 L5 0 L-6 7 M6 -8 V8" {...ink} />
    </>
  ),
  "shut-off valve": (
    <>
      <path d="M-16 -10 L16 10 V-10 L-16 10 Z" {...body} />
      <path d="M0 0 V-13 M-6 -13 H6" {...ink} />
    </>
  ),
  restrictor: (
    <>
      <path d="M-16 -11 H16 V-3 H-16 Z M-16 3 H16 V11 H-16 Z" {...body} />
      <path d="M-20 0 H20" {...ink} />
    </>
  ),
  reservoir: (
    <>
      <path d="M-16 -8 a16 5 0 0 1 32 0 V9 a16 5 0 0 1 -32 0 Z" {...body} />
      <path d="M-16 -8 a16 5 0 0 0 32 0" {...ink} />
    </>
  ),
  union: <path d="M-18 -7 H-8 V-11 H8 V-7 H18 V7 H8 V11 H-8 V7 H-18 Z" {...body} />,
  adapter: <path d="M-18 -10 H-2 V-6 H18 V6 H-2 V10 H-18 Z M-2 -6 V6" {...body} />,
  reducer: <path d="M-18 -11 H-6 L6 -5 H18 V5 H6 L-6 11 H-18 Z" {...body} />,
  elbow: <path d="M-18 -6 H0 a6 6 0 0 1 6 6 V13 H-6 V6 H-18 Z" {...body} />,
  tee: <path d="M-18 -7 H18 V5 H6 V13 H-6 V5 H-18 Z" {...body} />,
  "quick connector": (
    <>
      <path d="M-18 -8 H2 V8 H-18 Z" {...body} />
      <path d="M2 -4 H18 V4 H2 M-4 -8 l3 -5 h6" {...ink} />
    </>
  ),
  "banjo stack": (
    <>
      <rect x={-5} y={-14} width={10} height={28} {...body} />
      <circle r={9} {...ink} />
      <path d="M-11 -11 H11 M-11 11 H11" {...ink} />
    </>
  ),
};

/** A component by its sign; an arrow under it where its way is marked. */
export function Sign({ what, x, y, points }: { what: What; x: number; y: number; points?: "A" | "B" | undefined }) {
  return (
    <g transform={`translate(${x} ${y})`} data-sign={what}>
      {SIGNS[what]}
      {points && <path d={points === "B" ? "M-9 19 H9 m-5 -4 l5 4 l-5 4" : "M9 19 H-9 m5 -4 l-5 4 l5 4"} {...ink} />}
    </g>
  );
}
