import type { ReactNode } from "react";

const TUBE = "#b5561f";

/** How a further reading is taken: the line from A with its first bend up, and what is held to it. */
function Drawing({ children, words }: { children: ReactNode; words: readonly [number, number, string][] }) {
  return (
    <svg width={132} height={84} viewBox="0 0 132 84" aria-hidden style={{ flexShrink: 0 }}>
      {children}
      <g fill="currentColor" fontSize={11} fontFamily="Barlow Condensed, sans-serif">
        {words.map(([x, y, word]) => (
          <text key={word} x={x} y={y}>
            {word}
          </text>
        ))}
      </g>
    </svg>
  );
}

const Line = () => (
  <path d="M8 60 H44 Q54 60 56 50 L60 32 Q63 22 74 24 L104 30" fill="none" stroke={TUBE} strokeWidth={5} />
);

/** A rule ahead, a square up and across, to end B. */
export const ToEndB = () => (
  <Drawing
    words={[
      [2, 78, "A"],
      [110, 34, "B"],
      [48, 76, "ahead"],
      [92, 50, "up"],
      [90, 16, "across"],
    ]}
  >
    <Line />
    <g stroke="currentColor" strokeWidth={1.2} fill="none" strokeDasharray="5 3">
      <path d="M8 60 H88" />
      <path d="M88 60 V22" />
      <path d="M88 22 L104 30" />
    </g>
  </Drawing>
);

/** A tape from rim A to where the legs' middle lines meet at a bend. */
export const TapeToCorner = () => (
  <Drawing
    words={[
      [2, 78, "A"],
      [110, 34, "B"],
      [70, 14, "corner"],
      [14, 40, "tape"],
    ]}
  >
    <Line />
    <g stroke="currentColor" strokeWidth={1} fill="none">
      <path d="M56 50 L63.5 18" strokeDasharray="3 2" />
      <path d="M74 24 L60 20.5" strokeDasharray="3 2" />
      <path d="M8 60 L62.5 21" strokeWidth={1.6} />
      <circle cx={62.5} cy={21} r={2.5} fill="currentColor" />
    </g>
  </Drawing>
);

/** A rule ahead and a square up to one bend's corner. */
export const ToCorner = () => (
  <Drawing
    words={[
      [2, 78, "A"],
      [110, 34, "B"],
      [26, 76, "ahead"],
      [66, 46, "up"],
      [70, 14, "corner"],
    ]}
  >
    <Line />
    <g stroke="currentColor" strokeWidth={1.2} fill="none">
      <path d="M8 60 H62.5" strokeDasharray="5 3" />
      <path d="M62.5 60 V21" strokeDasharray="5 3" />
      <circle cx={62.5} cy={21} r={2.5} fill="currentColor" />
    </g>
  </Drawing>
);

/** The old part on its printed sheet: end A on its stop, end B beside the printed one. */
export const OnItsSheet = () => (
  <Drawing
    words={[
      [14, 76, "A at its stop"],
      [88, 16, "beside"],
      [96, 52, "too long"],
    ]}
  >
    <rect x={3} y={4} width={126} height={76} fill="none" stroke="currentColor" strokeWidth={0.8} />
    <path
      d="M12 60 H44 Q54 60 56 51 L59 38 Q62 29 72 31 L100 37"
      fill="none"
      stroke="currentColor"
      strokeWidth={6}
      strokeDasharray="2 3"
      opacity={0.55}
    />
    <path d="M12 60 H44 Q54 60 56 50 L60 32 Q63 22 74 24 L108 30" fill="none" stroke={TUBE} strokeWidth={4} />
    <path d="M12 52 V68" stroke="currentColor" strokeWidth={2} />
    <path d="M101 37 L103 29" stroke="currentColor" strokeWidth={1.2} />
  </Drawing>
);
