import type { VerdictWord } from "../api/types";

/** A verdict as a shape: a filled square is right, an open one acceptable, a half one asks for care, a
 * struck one is refused. The word always stands beside it or in its label. */
export function VerdictMark({ verdict, size = 18 }: { verdict: VerdictWord; size?: number }) {
  const colour = { right: "var(--good)", acceptable: "var(--ink)", caution: "var(--caution)", refused: "var(--stop)" }[
    verdict
  ];
  return (
    <svg width={size} height={size} viewBox="0 0 18 18" role="img" aria-label={verdict} style={{ flex: "none" }}>
      <rect
        x="2"
        y="2"
        width="14"
        height="14"
        fill={verdict === "right" ? colour : "none"}
        stroke={colour}
        strokeWidth="2"
      />
      {verdict === "caution" && <path d="M2 16 L16 2 V16 Z" fill={colour} />}
      {verdict === "refused" && <path d="M2 2 L16 16 M16 2 L2 16" stroke={colour} strokeWidth="2.6" />}
    </svg>
  );
}
