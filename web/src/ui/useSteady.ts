import { useLayoutEffect, useRef, useState } from "react";

/**
 * Handlers that stay the same from one drawing to the next and call the newest ones: what hangs on them is drawn
 * again only when something in it has changed.
 */
export function useSteady<T extends object>(handlers: T): T {
  const newest = useRef(handlers);
  useLayoutEffect(() => {
    newest.current = handlers;
  });
  const [steady] = useState(() => {
    const call = (name: string, args: unknown[]) =>
      (newest.current as Record<string, ((...args: unknown[]) => unknown) | undefined>)[name]?.(...args);
    return Object.fromEntries(
      Object.keys(handlers).map((name) => [name, (...args: unknown[]) => call(name, args)]),
    ) as T;
  });
  return steady;
}
