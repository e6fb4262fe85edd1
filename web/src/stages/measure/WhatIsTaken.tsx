import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Checks, TakenReading, TrustedReading, Unit } from "../../api/types";
import { saidDoubt, saidTaken } from "./taken";

interface Props {
  checks: Checks;
  /** Pointer to the readings in the document. */
  at: string;
  taken: readonly TakenReading[];
  trusted: readonly TrustedReading[];
  unit: Unit;
  onSet: (change: Partial<Checks>) => void;
}

/** Every reading as it was taken, with its doubt; each may be held as it is, or left out. */
export function WhatIsTaken({ checks, at, taken, trusted, unit, onSet }: Props) {
  const without = (path: string) => ({
    held: checks.held.filter((one) => one !== path),
    left_out: checks.left_out.filter((one) => one !== path),
  });
  const trust = (how: "held" | "left_out", path: string) => {
    const left = without(path);
    onSet({ ...left, [how]: [...left[how], path] });
  };
  return (
    <>
      {trusted.map(({ path, name, trust: how }) => (
        <Row key={path} text={`${name}: ${how}`}>
          <Button
            size="small"
            variant="text"
            aria-label={`Count it again: ${name}`}
            onClick={() => onSet(without(path))}
          >
            Count it again
          </Button>
        </Row>
      ))}
      {taken.length > 0 && (
        <Box component="details" sx={{ mt: 1, "& summary": { cursor: "pointer", minHeight: 36, pt: 1 } }}>
          <summary>How every reading was taken</summary>
          {taken.map((one) => {
            const { name } = one;
            const path = one.path.slice(at.length);
            const to = saidTaken(one, unit);
            const said = to ? `taken ${to}` : "as read";
            return (
              <Row key={path} text={`${name}: ${said}, ${saidDoubt(one, unit)}`}>
                {one.trust === "" && (
                  <>
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Hold: ${name}`}
                      onClick={() => trust("held", path)}
                    >
                      Hold
                    </Button>
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Leave out: ${name}`}
                      onClick={() => trust("left_out", path)}
                    >
                      Leave out
                    </Button>
                  </>
                )}
              </Row>
            );
          })}
        </Box>
      )}
    </>
  );
}

function Row({ text, children }: { text: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", borderBottom: "1px solid var(--rule)" }}>
      <Box sx={{ flex: "1 1 180px", py: 0.5 }}>{text}</Box>
      {children}
    </Box>
  );
}
