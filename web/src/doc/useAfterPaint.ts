import { useEffect, useState } from "react";

/** A value one painted frame late: what is dear to draw waits until the cheap answer is on the screen. */
export function useAfterPaint<T>(value: T): T {
  const [late, setLate] = useState(value);
  useEffect(() => {
    let timer: number | undefined;
    const frame = requestAnimationFrame(() => {
      timer = window.setTimeout(() => setLate(value));
    });
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(timer);
    };
  }, [value]);
  return late;
}
