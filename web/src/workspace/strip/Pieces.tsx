import type { Pieces as PiecesOut } from "../../api/types";

export const PIECE_W = 58;

interface Props {
  pieces: PiecesOut;
  /** Where the pieces begin at each end, in pixels. */
  starts: { A: number; B: number };
  y: number;
  h: number;
}

/** Hoses and parts beyond the ends, in their order; drawn as signs, not to scale. */
export function Pieces({ pieces, starts, y, h }: Props) {
  const place = (end: string, index: number) =>
    end === "A" ? starts.A - PIECE_W * (index + 1) : starts.B + PIECE_W * index;
  return (
    <g>
      {pieces.hoses.map(({ end, index, hose, hose_class, piece }) => {
        const x = place(end, index);
        return (
          <g key={`${end}${index}`} data-hose={`${end}${index + 1}`}>
            <title>{`${hose_class.name} ${hose.size}, ${piece.joined}`}</title>
            <rect
              x={x + 1}
              y={y + 1}
              width={PIECE_W - 2}
              height={h - 2}
              rx={4}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.6"
              strokeDasharray={piece.joined === "clamps" ? "none" : "6 2"}
            />
            {piece.joined === "clamps" &&
              [7, PIECE_W - 10].map((at) => (
                <rect key={at} x={x + at} y={y - 3} width={3.5} height={h + 6} fill="var(--ink)" />
              ))}
            <Label x={x} y={y + h + 15} text={`hose ${hose.size}`} />
          </g>
        );
      })}
      {pieces.parts.map(({ end, index, piece }) => {
        const x = place(end, index);
        const middle = x + PIECE_W / 2;
        const towards = piece.points === "A" ? -1 : 1;
        return (
          <g key={`${end}${index}`} data-part={`${end}${index + 1}`}>
            <title>{`${piece.part}, ${piece.points === "not marked" ? "no arrow seen" : `points to ${piece.points}`}`}</title>
            <rect x={x + 6} y={y - 4} width={PIECE_W - 12} height={h + 8} fill="var(--nut)" stroke="var(--ink)" />
            {piece.points !== "not marked" && (
              <path
                d={`M${middle - 9 * towards} ${y + h / 2} h${16 * towards} m${-6 * towards} -5 l${6 * towards} 5 l${-6 * towards} 5`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="2"
              />
            )}
            <Label x={x} y={y + h + 15} text={piece.part} />
          </g>
        );
      })}
    </g>
  );
}

function Label({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <text x={x + PIECE_W / 2} y={y} textAnchor="middle" fontSize="12.5" fill="var(--second)">
      {text}
    </text>
  );
}
