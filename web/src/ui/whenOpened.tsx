import type { ComponentType } from "react";
import { lazy, Suspense } from "react";

/** A dialog whose code is fetched when it is first opened; its content starts anew every time. */
export function whenOpened<P extends { open: boolean }>(load: () => Promise<{ default: ComponentType<P> }>) {
  const Dialog = lazy(load);
  return function Opened(props: P) {
    if (!props.open) return null;
    return (
      <Suspense fallback={null}>
        <Dialog {...props} />
      </Suspense>
    );
  };
}
