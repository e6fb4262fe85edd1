import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import DialogActions from "@mui/material/DialogActions";

/** The foot of a form in a dialog: what is wrong with it, leave it, keep it. */
export function KeepOrLeave({ problem, onClose }: { problem: string; onClose: () => void }) {
  return (
    <>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", px: 3 }}>
          {problem}
        </Box>
      )}
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          Leave it
        </Button>
        <Button type="submit" variant="contained">
          Keep it
        </Button>
      </DialogActions>
    </>
  );
}
