import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import type { Notice } from "./notice";

/** What happened, at the foot of the screen. */
export default function NoticeBar({ notice, close }: { notice: Notice | null; close: () => void }) {
  return (
    <Snackbar
      open={notice !== null}
      message={notice?.text}
      autoHideDuration={notice?.undo && !notice.small ? 20_000 : 8_000}
      onClose={(_, reason) => reason !== "clickaway" && close()}
      action={
        <>
          {notice?.undo && (
            <Button
              color="inherit"
              variant="text"
              onClick={() => {
                notice.undo?.();
                close();
              }}
            >
              Undo
            </Button>
          )}
          <Button color="inherit" variant="text" onClick={close}>
            Close
          </Button>
        </>
      }
    />
  );
}
