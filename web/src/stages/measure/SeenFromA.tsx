import Box from "@mui/material/Box";
import type { Checks, Unit } from "../../api/types";
import { typed } from "../../doc/rows";
import { Field } from "../../ui/Field";

interface Props {
  checks: Checks;
  unit: Unit;
  problem: (path: string) => string | undefined;
  onSet: (change: Partial<Checks>) => void;
}

const SIDES: readonly { name: "ahead" | "up" | "right"; label: string; holder: string }[] = [
  { name: "ahead", label: "B, ahead of A", holder: "along A’s way" },
  { name: "up", label: "B, up", holder: "to 12:00, − below" },
  { name: "right", label: "B, across", holder: "to 3:00, − to 9:00" },
];

/** Where end B stands, by rule and square from end A: what brings end B nearest. */
export function SeenFromA({ checks, unit, problem, onSet }: Props) {
  return (
    <Box role="group" aria-label="Where end B stands" sx={{ my: 1 }}>
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", color: "var(--second)", fontSize: 14 }}>
        <HowItIsTaken />
        <Box>
          A rule laid straight on from rim A, a square off it to rim B: how far ahead, how far up (the side that bend 1
          turns to), how far across.
        </Box>
      </Box>
      {SIDES.map(({ name, label, holder }) => (
        <Field
          key={name}
          takes="length"
          label={label}
          text={checks[name].text}
          placeholder={holder}
          problem={problem(name)}
          onText={(text) => onSet({ [name]: typed(text, unit) })}
        />
      ))}
    </Box>
  );
}

/** A line from A with its first bend up; the rule ahead, the square up and across to B. */
function HowItIsTaken() {
  return (
    <svg width={132} height={84} viewBox="0 0 132 84" aria-hidden style={{ flexShrink: 0 }}>
      <path d="M8 60 H44 Q54 60 56 50 L60 32 Q63 22 74 24 L104 30" fill="none" stroke="#b5561f" strokeWidth={5} />
      <g stroke="currentColor" strokeWidth={1.2} fill="none">
        <path d="M8 60 H88" strokeDasharray="5 3" />
        <path d="M88 60 V22" strokeDasharray="5 3" />
        <path d="M88 22 L104 30" strokeDasharray="5 3" />
      </g>
      <g fill="currentColor" fontSize={11} fontFamily="Barlow Condensed, sans-serif">
        <text x={2} y={78}>
          A
        </text>
        <text x={110} y={34}>
          B
        </text>
        <text x={48} y={76}>
          ahead
        </text>
        <text x={92} y={50}>
          up
        </text>
        <text x={90} y={16}>
          across
        </text>
      </g>
    </svg>
  );
}
