import type { HoseSpan, Unit } from "../../../api/types";
import { typed } from "../../../doc/rows";
import { Field } from "../../../ui/Field";
import { Section } from "../../../ui/Section";

interface Props {
  piece: HoseSpan;
  unit: Unit;
  problemAt: (path: string) => string | undefined;
  onChange: (part: Partial<HoseSpan>) => void;
}

/** A bought hose, read before it is fitted: what is off is among the findings. */
export function BoughtCheck({ piece, unit, problemAt, onChange }: Props) {
  if (piece.state === "stays") return null;
  const bought = piece.bought ?? { length: typed("", unit), clock: "" };
  const set = (part: Partial<typeof bought>) => {
    const next = { ...bought, ...part };
    onChange({ bought: next.length.text.trim() || next.clock.trim() ? next : null });
  };
  const problem = (name: string) => problemAt(`/spans/${piece.id}/bought/${name}`);
  return (
    <Section
      title="Check a bought hose"
      hint="A made-up hose is read before it is fitted: laid straight, along a rule."
      open={piece.bought !== null}
    >
      <Field
        label="The bought one measures"
        text={bought.length.text}
        placeholder={piece.joined === "clamps" ? "end to end" : "seat to seat"}
        takes="length"
        problem={problem("length")}
        onText={(text) => set({ length: typed(text, unit) })}
      />
      {piece.angle_a !== 0 && piece.angle_b !== 0 && (
        <Field
          label="Its B stands at"
          text={bought.clock}
          placeholder="degrees clockwise, seen from A"
          problem={problem("clock")}
          onText={(clock) => set({ clock: clock.slice(0, 80) })}
        />
      )}
    </Section>
  );
}
