import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Checks, TapeAcross, Unit } from "../../api/types";
import { typed } from "../../doc/rows";
import { Field, Pick } from "../../ui/Field";
import { TapeToCorner } from "./drawings";
import { HowTaken } from "./HowTaken";
import { blankTape } from "./further";
import { ReadGroup } from "./ReadGroup";

interface Props {
  checks: Checks;
  /** The ends and every bend, by id and name. */
  spots: { id: string; name: string }[];
  unit: Unit;
  problem: (path: string) => string | undefined;
  verdict: (id: string) => ReactNode;
  onSet: (change: Partial<Checks>) => void;
}

/** Tapes straight from an end or a corner to another. */
export function TapesAcross({ checks, spots, unit, problem, verdict, onSet }: Props) {
  const change = (id: string, to: Partial<TapeAcross>) =>
    onSet({ across: checks.across.map((tape) => (tape.id === id ? { ...tape, ...to } : tape)) });
  const named = (id: string) => spots.find((spot) => spot.id === id)?.name ?? "a bend that is gone";
  return (
    <>
      <HowTaken drawing={<TapeToCorner />}>
        Lay straight-edges along two legs; where their middle lines cross is the corner. The tape goes straight there,
        or over the backs of the bends, where it reads most.
      </HowTaken>
      {checks.across.map((tape) => {
        const name = `${named(tape.start)} to ${named(tape.end)}`;
        return (
          <ReadGroup
            key={tape.id}
            at={`across/${tape.id}`}
            name={`tape, ${name}`}
            beside={
              <Box
                component="label"
                sx={{
                  display: "flex",
                  alignItems: "center",
                  gap: 1,
                  flex: 1,
                  minHeight: 34,
                  "@media (pointer: coarse)": { minHeight: 44 },
                }}
              >
                <input
                  type="checkbox"
                  checked={tape.over}
                  onChange={(event) => change(tape.id, { over: event.target.checked })}
                  style={{ width: 20, height: 20, flex: "none", accentColor: "var(--ink)" }}
                />
                over the backs of the bends
              </Box>
            }
            onTakeOut={() => onSet({ across: checks.across.filter((one) => one.id !== tape.id) })}
          >
            <Pick
              label="From"
              value={tape.start}
              options={spots}
              problem={problem(`across/${tape.id}/start`)}
              onChange={(start) => change(tape.id, { start })}
            />
            <Pick
              label="To"
              value={tape.end}
              options={spots}
              problem={problem(`across/${tape.id}/end`)}
              onChange={(end) => change(tape.id, { end })}
            />
            <Field
              takes="length"
              label="It reads"
              text={tape.length.text}
              placeholder={tape.over ? "the greatest, over the backs" : "to the corners"}
              problem={problem(`across/${tape.id}/length`)}
              onText={(text) => change(tape.id, { length: typed(text, unit) })}
            />
            {verdict(tape.id)}
          </ReadGroup>
        );
      })}
      <Button
        size="small"
        variant="text"
        disabled={spots.length < 3}
        onClick={() => onSet({ across: [...checks.across, blankTape("A", spots[1]?.id ?? "B", unit)] })}
      >
        + tape
      </Button>
    </>
  );
}
