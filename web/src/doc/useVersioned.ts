import { useEffect, useSyncExternalStore } from "react";
import type { Versioned, VersionedState } from "./versioned";

/** What a store holds: read when it is shown, and kept before the page is left. */
export function useVersioned<Kept extends { version: number }, Value>(
  store: Versioned<Kept, Value>,
): VersionedState<Kept, Value> {
  useEffect(() => {
    void store.open();
    const keep = () => void store.flush();
    window.addEventListener("pagehide", keep);
    return () => {
      window.removeEventListener("pagehide", keep);
      keep();
    };
  }, [store]);
  return useSyncExternalStore(store.listen, store.now);
}
