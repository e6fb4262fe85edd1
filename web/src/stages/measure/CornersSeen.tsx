import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Checks, CornerPlace, Unit } from "../../api/types";
import { typed } from "../../doc/rows";
import { Field, Pick } from "../../ui/Field";
import { ToCorner } from "./drawings";
import { blankCorner } from "./further";
import { HowTaken } from "./HowTaken";
import { ReadGroup } from "./ReadGroup";
import { SIDES } from "./sides";

interface Props {
  checks: Checks;
  bends: { id: string; name: string }[];
  unit: Unit;
  problem: (path: string) => string | undefined;
  verdict: (id: string) => ReactNode;
  onSet: (change: Partial<Checks>) => void;
}

/** Where corners stand, by rule and square from end A. */
export function CornersSeen({ checks, bends, unit, problem, verdict, onSet }: Props) {
  const change = (id: string, to: Partial<CornerPlace>) =>
    onSet({ corners: checks.corners.map((corner) => (corner.id === id ? { ...corner, ...to } : corner)) });
  return (
    <>
      <HowTaken drawing={<ToCorner />}>
        As for end B, to the corner where the middle lines of a bend’s legs meet. A side that cannot be reached stays
        blank; on a flat table its height is the side across.
      </HowTaken>
      {checks.corners.map((corner) => {
        const name = bends.find((bend) => bend.id === corner.row)?.name ?? "a bend that is gone";
        return (
          <ReadGroup
            key={corner.id}
            at={`corners/${corner.id}`}
            name={`corner of ${name}`}
            onTakeOut={() => onSet({ corners: checks.corners.filter((one) => one.id !== corner.id) })}
          >
            <Pick
              label="Corner of"
              value={corner.row}
              options={bends}
              problem={problem(`corners/${corner.id}/row`)}
              onChange={(row) => change(corner.id, { row })}
            />
            {SIDES.map((side) => (
              <Field
                key={side.name}
                takes="length"
                label={`It stands ${side.label}`}
                text={corner[side.name].text}
                placeholder={side.holder}
                problem={problem(`corners/${corner.id}/${side.name}`)}
                onText={(text) => change(corner.id, { [side.name]: typed(text, unit) })}
              />
            ))}
            {verdict(corner.id)}
          </ReadGroup>
        );
      })}
      <Button
        size="small"
        variant="text"
        disabled={bends.length === 0}
        onClick={() => onSet({ corners: [...checks.corners, blankCorner(bends[0]?.id ?? "", unit)] })}
      >
        + corner
      </Button>
    </>
  );
}
