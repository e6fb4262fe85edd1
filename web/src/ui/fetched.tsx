import type { ComponentType } from "react";
import { useSyncExternalStore } from "react";
import { Part } from "./part";

/** A component whose code is fetched when it is first drawn, or before by its `fetch`; nothing is drawn until it is
 * there. The kit's own way of doing this holds what comes back for a third of a second, which is felt. */
export function fetched<P extends object>(load: () => Promise<{ default: ComponentType<P> }>) {
  const part = new Part(load);
  function Fetched(props: P) {
    const { made: Made, failed } = useSyncExternalStore(part.wait, part.now);
    if (failed) throw failed;
    return Made ? <Made {...props} /> : null;
  }
  return Object.assign(Fetched, { fetch: part.fetch });
}
