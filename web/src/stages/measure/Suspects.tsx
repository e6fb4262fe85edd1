import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Named } from "../../api/types";

interface Props {
  named: readonly Named[];
  /** Pointer to the readings of the shape: those alone can be left out here. */
  at: string;
  onGo: (path: string) => void;
  onLeaveOut: (path: string) => void;
}

/** What may be wrong where readings contradict one another, likeliest first. */
export function Suspects({ named, at, onGo, onLeaveOut }: Props) {
  return (
    <Box role="status" aria-label="Read these again" sx={{ mt: 1, borderTop: "2px solid var(--caution)", pt: 0.5 }}>
      <Box sx={{ fontWeight: 600 }}>Read these again, likeliest first</Box>
      {named.map((suspect) => (
        <Box
          key={suspect.path}
          data-suspect={suspect.path}
          sx={{ display: "flex", gap: 1, alignItems: "center", borderBottom: "1px solid var(--rule)" }}
        >
          <Box sx={{ flex: 1, py: 0.5 }}>
            <strong>{suspect.name}</strong>: {suspect.change} would reconcile all
            {suspect.slip && `, ${suspect.slip}`}.
          </Box>
          <Button size="small" variant="text" aria-label={`Go to ${suspect.name}`} onClick={() => onGo(suspect.path)}>
            Go there
          </Button>
          {suspect.path.startsWith(at) && (
            <Button
              size="small"
              variant="text"
              aria-label={`Leave out ${suspect.name}`}
              onClick={() => onLeaveOut(suspect.path.slice(at.length))}
            >
              Leave it out
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
