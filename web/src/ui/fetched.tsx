import type { ComponentType } from "react";
import { useEffect, useState } from "react";

type Load<P> = () => Promise<{ default: ComponentType<P> }>;

/** A component whose code is fetched when it is first drawn, or before by its `fetch`; nothing is drawn until it is
 * there. The kit's own way of doing this holds what comes back for a third of a second, which is felt. */
export function fetched<P extends object>(load: Load<P>) {
  let Made: ComponentType<P> | null = null;
  const fetch = async () => {
    Made = (await load()).default;
  };
  function Fetched(props: P) {
    const [failed, setFailed] = useState<Error | null>(null);
    const [, draw] = useState(Made !== null);
    useEffect(() => {
      if (!Made) fetch().then(() => draw(true), setFailed);
    }, []);
    if (failed) throw failed;
    return Made ? <Made {...props} /> : null;
  }
  return Object.assign(Fetched, { fetch });
}
