import { condensed } from "../../theme/theme";
import type { Dimension } from "./piece";
import { pieceAt, TUBE } from "./piece";

const OFF = 24;
const EDGE = 46;

/** The bent test piece with the readings that are asked, as they are taken. */
export function PieceDrawing({ degrees }: { degrees: number }) {
  const piece = pieceAt(degrees);
  const points = [piece.start, piece.end, piece.mark, ...[piece.clamped, piece.free, piece.width].flatMap(ends)];
  const xs = points.map((point) => point.x);
  const ys = points.map((point) => point.y);
  const [left, top] = [Math.min(...xs) - EDGE, Math.min(...ys) - EDGE];
  const [wide, tall] = [Math.max(...xs) - left + EDGE, Math.max(...ys) - top + EDGE];
  const how = piece.corner ? "to the outside corner of the bend" : "to the back of the bend, tape hooked over it";
  return (
    <svg
      viewBox={`${left} ${top} ${wide} ${tall}`}
      role="img"
      aria-label={`Test piece bent to ${degrees}°: both legs are read ${how}${piece.width ? ", and the U across its outside" : ""}.`}
      style={{ display: "block", width: "100%", maxHeight: 190, background: "var(--sheet)", fontFamily: condensed }}
    >
      <path d={piece.path} fill="none" stroke="var(--tube)" strokeWidth={TUBE} />
      {piece.corner && (
        <path
          d={`M${piece.mark.x} ${TUBE / 2} L${piece.corner.x} ${piece.corner.y} L${piece.free.from.x} ${piece.free.from.y}`}
          fill="none"
          stroke="var(--second)"
          strokeDasharray="5 4"
        />
      )}
      <line x1={piece.mark.x} x2={piece.mark.x} y1={-TUBE / 2 - 8} y2={TUBE / 2} stroke="var(--ink)" strokeWidth="2" />
      <text x={piece.mark.x - 4} y={-TUBE / 2 - 12} textAnchor="middle" fontSize="15" fill="var(--second)">
        mark
      </text>
      <Dim of={piece.clamped} text="clamped leg" />
      <Dim of={piece.free} text="free leg" />
      {piece.width && <Dim of={piece.width} text="width" />}
    </svg>
  );
}

function ends(dimension: Dimension | null) {
  if (!dimension) return [];
  const { from, to, away } = dimension;
  return [from, to].map((point) => ({ x: point.x + away.x * OFF, y: point.y + away.y * OFF }));
}

function Dim({ of, text }: { of: Dimension; text: string }) {
  const [a, b] = ends(of);
  if (!a || !b) return null;
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  let turn = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  if (turn > 90 || turn <= -90) turn += 180;
  const side = of.away.y < 0 || (of.away.y === 0 && of.away.x < 0) ? -7 : 17;
  return (
    <g stroke="var(--ink)" fill="none">
      <line x1={of.from.x} y1={of.from.y} x2={a.x} y2={a.y} stroke="var(--second)" />
      <line x1={of.to.x} y1={of.to.y} x2={b.x} y2={b.y} stroke="var(--second)" />
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth="1.5" />
      <circle cx={a.x} cy={a.y} r="3" fill="var(--ink)" />
      <circle cx={b.x} cy={b.y} r="3" fill="var(--ink)" />
      <text
        transform={`translate(${middle.x} ${middle.y}) rotate(${turn})`}
        y={side}
        textAnchor="middle"
        fontSize="16"
        fontWeight={600}
        stroke="none"
        fill="var(--ink)"
      >
        {text}
      </text>
    </g>
  );
}
