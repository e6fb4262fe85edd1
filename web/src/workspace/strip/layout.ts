/** What one span of the chain takes on the strip. */
export interface Piece {
  id: string;
  kind: "rigid" | "hose" | "component";
  /** Its length along the line; null while nobody knows it. */
  mm: number | null;
  /** Tube beyond its ends that is drawn with it: spare, flares, what is left long. */
  before: number;
  behind: number;
}

export interface Segment extends Piece {
  /** Left edge and width in pixels; the tube's own rims lie within them. */
  x: number;
  width: number;
  /** It is drawn shorter or longer than it is. */
  broken: boolean;
}

export interface Layout {
  segments: Segment[];
  /** Pixels for a millimetre. */
  scale: number;
  /** Where a place of a span lies, in pixels. */
  x: (span: string, mm: number) => number;
}

/** The least that can be seen and pressed, and what a length that is not known is drawn as. */
export const LEAST = { rigid: 30, hose: 44, component: 46 } as const;
export const UNKNOWN = { rigid: 90, hose: 70, component: 50 } as const;
const SIDE = 76;
export const GAP = 16;

/** The whole line to one scale, in its order from port A to port B. */
export function layoutOf(pieces: readonly Piece[], width: number): Layout {
  const room = Math.max(120, width - 2 * SIDE - GAP * Math.max(0, pieces.length - 1));
  const total = (piece: Piece) => (piece.mm ?? 0) + piece.before + piece.behind;
  // what is too short to be seen at the common scale takes its least width from the others' room
  const fixed = new Map<string, number>();
  for (const piece of pieces) if (piece.mm === null) fixed.set(piece.id, UNKNOWN[piece.kind]);
  let scale = 0;
  for (;;) {
    const open = pieces.filter((piece) => !fixed.has(piece.id));
    const left = room - [...fixed.values()].reduce((sum, px) => sum + px, 0);
    scale =
      Math.max(1, left) /
      Math.max(
        1,
        open.reduce((sum, piece) => sum + total(piece), 0),
      );
    const small = open.find((piece) => open.length > 1 && total(piece) * scale < LEAST[piece.kind]);
    if (!small) break;
    fixed.set(small.id, LEAST[small.kind]);
  }
  let x = SIDE;
  const segments = pieces.map((piece) => {
    const own = fixed.get(piece.id);
    const segment = { ...piece, x, width: own ?? total(piece) * scale, broken: own !== undefined };
    x += segment.width + GAP;
    return segment;
  });
  return {
    segments,
    scale,
    x: (span, mm) => {
      const segment = segments.find((one) => one.id === span) ?? segments[0];
      if (!segment) return SIDE;
      return segment.x + (mm + segment.before) * (segment.width / Math.max(1e-9, total(segment)));
    },
  };
}
