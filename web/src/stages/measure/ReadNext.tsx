import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { KnownEnd, NextCheck, ToTake, Unit } from "../../api/types";
import { sayAngle, sayLength } from "../../format/units";

interface Props {
  next: KnownEnd;
  unit: Unit;
  onTake: (reading: ToTake) => void;
}

/** How near end B comes to its port, and the one reading that brings it nearest. */
export function ReadNext({ next, unit, onTake }: Props) {
  const near = (mm: number, deg: number) => `${sayLength(mm, unit)} and ${sayAngle(deg)}`;
  const [best, ...others] = next.worth;
  return (
    <Box role="status" aria-label="How well end B is known" data-enough={next.enough} sx={{ my: 1, fontSize: 15 }}>
      Made from these readings, end B comes within {near(next.meets_mm, next.meets_deg)} of where it belongs
      {next.enough ? ": enough." : "."}
      {best && (
        <>
          {" "}
          To read next: <b>{best.name}</b>; then it comes within {near(best.meets_mm, best.meets_deg)}.{" "}
          <Take reading={best.take} name={best.name} onTake={onTake} />
          {others.length > 0 && (
            <Box sx={{ color: "var(--second)", fontSize: 14 }}>
              Or{" "}
              {others.map((other, k) => (
                <span key={other.name}>
                  {k > 0 && ", or "}
                  {other.name} ({near(other.meets_mm, other.meets_deg)})
                </span>
              ))}
              .
            </Box>
          )}
        </>
      )}
      {!best && !next.enough && " No further reading asked for here brings it nearer; the trial fit will."}
    </Box>
  );
}

/** A reading that decides what is wrong, or notices a slip that nothing would notice now. */
export function AlsoRead({ ask, onTake }: { ask: NextCheck; onTake: (reading: ToTake) => void }) {
  const shown = ask.between.slice(0, MOST_SAID).join(", ");
  const more = ask.between.length - MOST_SAID;
  return (
    <Box role="status" data-ask={ask.take.kind} sx={{ mt: 1, pl: 1, borderLeft: "4px solid var(--note)" }}>
      Read <b>{ask.name}</b>
      {ask.why === "which is wrong"
        ? `: it decides between ${shown}`
        : ` too: it would show a slip that nobody would notice now, in ${shown}`}
      {more > 0 && ` and ${more} more`}. <Take reading={ask.take} name={ask.name} onTake={onTake} />
    </Box>
  );
}

const MOST_SAID = 3;

function Take({ reading, name, onTake }: { reading: ToTake; name: string; onTake: (reading: ToTake) => void }) {
  return (
    <Button size="small" variant="text" aria-label={`Read it: ${name}`} onClick={() => onTake(reading)}>
      Read it
    </Button>
  );
}
