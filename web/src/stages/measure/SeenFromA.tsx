import type { Checks, Unit } from "../../api/types";
import { typed } from "../../doc/rows";
import { Field } from "../../ui/Field";
import { ToEndB } from "./drawings";
import { HowTaken } from "./HowTaken";
import { SIDES } from "./sides";

interface Props {
  checks: Checks;
  unit: Unit;
  problem: (path: string) => string | undefined;
  onSet: (change: Partial<Checks>) => void;
}

/** Where end B stands, by rule and square from end A. */
export function SeenFromA({ checks, unit, problem, onSet }: Props) {
  return (
    <>
      <HowTaken drawing={<ToEndB />}>
        A rule laid straight on from rim A, a square off it to rim B: how far ahead, how far up (the side that bend 1
        turns to), how far across.
      </HowTaken>
      {SIDES.map(({ name, label, holder }) => (
        <Field
          key={name}
          takes="length"
          label={`B, ${label}`}
          text={checks[name].text}
          placeholder={holder}
          problem={problem(name)}
          onText={(text) => onSet({ [name]: typed(text, unit) })}
        />
      ))}
    </>
  );
}
