import Box from "@mui/material/Box";
import type { HoldTold } from "../../api/types";
import { localTime } from "../../doc/proving";
import { condensed } from "../../theme/theme";

const WORDS = {
  holds: "It holds.",
  leaks: "It leaks.",
  too_short: "Not long enough yet.",
  not_steady: "Not steady: it says nothing yet.",
} as const;
const INK = {
  holds: "var(--good)",
  leaks: "var(--stop)",
  too_short: "var(--caution)",
  not_steady: "var(--caution)",
} as const;

const say = (figure: number) => Number(figure.toPrecision(3)).toString();

/** What a hold test says: pass, fail or not yet, the leak with its doubt, and how much room is left. */
export function HoldVerdict({ told }: { told: HoldTold | undefined }) {
  if (!told) return null;
  if (!told.result)
    return (
      <Box role="alert" aria-live="polite" sx={{ mt: 0.5, color: "var(--caution)" }}>
        {told.problem}
      </Box>
    );
  const { result } = told;
  const until = result.more_s === null ? "" : localTime(new Date(Date.now() + result.more_s * 1000)).slice(11);
  return (
    <Box role="status" aria-label="What it says" data-verdict={result.verdict} sx={{ mt: 0.5 }}>
      <Box sx={{ font: `600 22px ${condensed}`, color: INK[result.verdict] }}>
        {WORDS[result.verdict]}
        {result.verdict === "too_short" && until && ` Go on until ${until}.`}
      </Box>
      <Box sx={{ font: `500 17px ${condensed}` }}>
        {told.leak}
        {result.margin !== null && `, ${say(result.margin)} times the time asked for until the limit`}
        {result.tau_s !== null && `, time constant ${Math.round(result.tau_s)} s`}
      </Box>
      {result.notes.map((note) => (
        <Box key={note} sx={{ fontSize: 14, color: "var(--second)" }}>
          {note}
        </Box>
      ))}
    </Box>
  );
}
