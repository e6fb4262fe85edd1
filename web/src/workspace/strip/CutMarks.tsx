import { useRef } from "react";
import type { KeyboardEvent, PointerEvent } from "react";
import type { Unit } from "../../api/types";
import type { Cuts } from "../../doc/select";
import { sayLength } from "../../format/units";
import { TUBE_H, TUBE_Y } from "./along";
import { cutByHand, cutByKey } from "./cutPlace";

interface Props {
  cuts: Cuts;
  unit: Unit;
  x: (mm: number) => number;
}

/** The cuts of the way that is looked at: dragged along the tube, or moved with the arrow keys. */
export function CutMarks({ cuts, unit, x }: Props) {
  const { a, b } = cuts;
  return (
    <g>
      {a !== null && b !== null && (
        <rect
          data-cut-out
          x={x(a)}
          y={TUBE_Y - 3}
          width={Math.max(0, x(b) - x(a))}
          height={TUBE_H + 6}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.4"
          strokeDasharray="2 3"
        />
      )}
      {a !== null && <Cut end="A" mm={a} cuts={cuts} unit={unit} x={x} />}
      {b !== null && <Cut end="B" mm={b} cuts={cuts} unit={unit} x={x} />}
    </g>
  );
}

function Cut({ end, mm, cuts, unit, x }: Props & { end: "A" | "B"; mm: number }) {
  const held = useRef<{ x: number; mm: number } | null>(null);
  const at = x(mm);
  const down = (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { x: event.clientX, mm };
    event.stopPropagation();
  };
  const moved = (event: PointerEvent<SVGGElement>) => {
    if (held.current) cuts.move(end, cutByHand(held.current, event.clientX, x(1) - x(0)));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = cutByKey(mm, event.key, event.shiftKey);
    if (to === null) return;
    cuts.move(end, to);
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      data-cut={end}
      role="slider"
      tabIndex={0}
      aria-label={`Cut on the side of ${end}`}
      aria-valuenow={Math.round(mm)}
      aria-valuetext={`${sayLength(mm, unit)} from A`}
      onPointerDown={down}
      onPointerMove={moved}
      onPointerUp={() => (held.current = null)}
      onKeyDown={onKeyDown}
      style={{ cursor: "ew-resize", touchAction: "none" }}
    >
      <rect x={at - 12} y={TUBE_Y - 18} width={24} height={TUBE_H + 44} fill="transparent" />
      <line
        x1={at}
        x2={at}
        y1={TUBE_Y - 14}
        y2={TUBE_Y + TUBE_H + 14}
        stroke={cuts.refused ? "var(--stop)" : "var(--ink)"}
        strokeWidth="2.4"
      />
      <path d={`M${at - 7} ${TUBE_Y - 22} h14 l-7 9 z`} fill={cuts.refused ? "var(--stop)" : "var(--ink)"} />
      <text
        x={at + (end === "A" ? -6 : 6)}
        y={TUBE_Y + TUBE_H + 25}
        textAnchor={end === "A" ? "end" : "start"}
        fontSize="14"
        fontWeight={600}
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {`cut ${sayLength(mm, unit)}`}
      </text>
    </g>
  );
}
