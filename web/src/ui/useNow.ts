import { useEffect, useState } from "react";

/** The present moment, moving on every second for as long as that is wanted. */
export function useNow(wanted: boolean): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    if (!wanted) return;
    const timer = window.setInterval(() => setNow(new Date()), 1000);
    return () => window.clearInterval(timer);
  }, [wanted]);
  return now;
}
