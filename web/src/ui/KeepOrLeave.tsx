import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import DialogActions from "@mui/material/DialogActions";

/** The foot of a form in a dialog: what is wrong with it, leave it, keep it. */
export function KeepOrLeave({
  problem,
  onClose,
  stale = false,
}: {
  problem: string;
  onClose: () => void;
  /** Somebody else has kept another one meanwhile. */
  stale?: boolean;
}) {
  return (
    <>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", px: 3 }}>
          {problem}
        </Box>
      )}
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          {stale ? "Leave theirs" : "Leave it"}
        </Button>
        <Button type="submit" variant="contained">
          {stale ? "Put mine in its place" : "Keep it"}
        </Button>
      </DialogActions>
    </>
  );
}
