import type { ReactNode } from "react";
import { createContext, lazy, Suspense, useCallback, useContext, useState } from "react";

export interface Notice {
  text: string;
  /** A small thing, gone sooner. */
  small?: boolean;
  undo?: () => void;
}

const NoticeBar = lazy(() => import("./NoticeBar"));
const NoticeContext = createContext<((notice: Notice) => void) | null>(null);

/** One line at the foot of the screen: what happened, and the way back where there is one. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const [shown, setShown] = useState(false);
  const close = useCallback(() => setNotice(null), []);
  const show = useCallback((said: Notice) => {
    setNotice(said);
    setShown(true);
  }, []);
  return (
    <NoticeContext.Provider value={show}>
      {children}
      {shown && (
        <Suspense fallback={null}>
          <NoticeBar notice={notice} close={close} />
        </Suspense>
      )}
    </NoticeContext.Provider>
  );
}

export function useNotice(): (notice: Notice) => void {
  const show = useContext(NoticeContext);
  if (!show) throw new Error("useNotice needs a NoticeProvider");
  return show;
}
