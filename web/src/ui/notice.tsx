import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import type { ReactNode } from "react";
import { createContext, useCallback, useContext, useMemo, useState } from "react";

interface Notice {
  text: string;
  /** A small thing, gone sooner. */
  small?: boolean;
  undo?: () => void;
}

const NoticeContext = createContext<((notice: Notice) => void) | null>(null);

/** One line at the foot of the screen: what happened, and the way back where there is one. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const close = useCallback(() => setNotice(null), []);
  const show = useMemo(() => setNotice, []);
  return (
    <NoticeContext.Provider value={show}>
      {children}
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
    </NoticeContext.Provider>
  );
}

export function useNotice(): (notice: Notice) => void {
  const show = useContext(NoticeContext);
  if (!show) throw new Error("useNotice needs a NoticeProvider");
  return show;
}
