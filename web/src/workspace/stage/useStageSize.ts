import { useEffect, useRef, useState } from "react";

export interface Size {
  width: number;
  height: number;
}

/** The size of the stage in pixels, followed as the window changes. */
export function useStageSize() {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return { box, size };
}
