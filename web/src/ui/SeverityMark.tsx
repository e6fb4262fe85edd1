import type { Severity } from "../api/types";

const WORD: Record<Severity, string> = { stop: "Stop", caution: "Caution", note: "Note" };

/** Severity by shape and colour: octagon stop, triangle caution, disc note. */
export function SeverityMark({ severity, size = 22 }: { severity: Severity; size?: number }) {
  const fill = `var(--${severity})`;
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" role="img" aria-label={WORD[severity]} style={{ flex: "none" }}>
      {severity === "stop" && <polygon points="7,1 17,1 23,7 23,17 17,23 7,23 1,17 1,7" fill={fill} />}
      {severity === "caution" && <polygon points="12,1 23.5,22.5 0.5,22.5" fill={fill} />}
      {severity === "note" && <circle cx="12" cy="12" r="11" fill={fill} />}
      <text
        x="12"
        y={severity === "caution" ? 20 : 18}
        textAnchor="middle"
        fontSize="17"
        fontWeight="700"
        fontFamily="Barlow"
        fill="var(--paper)"
      >
        {severity === "note" ? "i" : "!"}
      </text>
    </svg>
  );
}
