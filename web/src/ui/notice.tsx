import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { createContext, useCallback, useContext, useEffect, useState } from "react";

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
  useEffect(() => {
    if (!notice) return;
    const end = setTimeout(close, notice.undo && !notice.small ? 20_000 : 8_000);
    return () => clearTimeout(end);
  }, [notice, close]);
  return (
    <NoticeContext.Provider value={setNotice}>
      {children}
      {notice && (
        <Box
          role="status"
          sx={{
            position: "fixed",
            zIndex: 1400,
            left: { xs: 8, sm: 24 },
            right: { xs: 8, sm: "auto" },
            // a page with something at its foot that must be seen says how high that is
            bottom: { xs: "calc(var(--foot, 0px) + 8px)", sm: "calc(var(--foot, 0px) + 24px)" },
            maxWidth: 560,
            px: 2,
            py: 0.75,
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 1,
            color: "var(--paper)",
            background: "var(--ink)",
            borderRadius: "2px",
          }}
        >
          <Box sx={{ flex: "1 1 240px", overflowWrap: "anywhere" }}>{notice.text}</Box>
          {notice.undo && (
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
        </Box>
      )}
    </NoticeContext.Provider>
  );
}

export function useNotice(): (notice: Notice) => void {
  const show = useContext(NoticeContext);
  if (!show) throw new Error("useNotice needs a NoticeProvider");
  return show;
}
