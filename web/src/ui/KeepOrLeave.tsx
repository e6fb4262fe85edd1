import Button from "@mui/material/Button";

interface Props {
  onClose: () => void;
  /** Somebody else has kept another one meanwhile. */
  stale?: boolean;
}

/** The foot of a form in a dialog: leave it, keep it. */
export function KeepOrLeave({ onClose, stale = false }: Props) {
  return (
    <>
      <Button variant="text" onClick={onClose}>
        {stale ? "Leave theirs" : "Leave it"}
      </Button>
      <Button type="submit" variant="contained">
        {stale ? "Put mine in its place" : "Keep it"}
      </Button>
    </>
  );
}
