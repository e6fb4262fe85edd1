import { useEffect, useState } from "react";
import { api, Refusal, take } from "../api/client";
import type { BenchReport, Line } from "../api/types";

const QUIET_MS = 350;

export interface BenchView {
  report: BenchReport | null;
  /** Why there is none where the plan itself is fine: it is too much to reckon. */
  beyond: string;
}

const NOTHING: BenchView = { report: null, beyond: "" };

/**
 * What the tool makes of the line as typed; asked for only where it is shown, and after a short quiet,
 * because carrying out every bend takes longer than a key. An older question is given up.
 */
export function useBench(document: Line, wanted: boolean, tube: string): BenchView {
  const [view, setView] = useState<BenchView>(NOTHING);
  useEffect(() => {
    if (!wanted || !tube) {
      setView(NOTHING);
      return;
    }
    const gone = new AbortController();
    const timer = window.setTimeout(() => {
      take(api.POST("/api/bench", { body: document, params: { query: { span: tube } }, signal: gone.signal }))
        .then((report) => setView({ report, beyond: "" }))
        .catch((error: unknown) => {
          // what keeps it from being planned is said beside the readings
          const beyond = error instanceof Refusal && error.status === 413 ? error.message : "";
          if (!gone.signal.aborted) setView({ report: null, beyond });
        });
    }, QUIET_MS);
    return () => {
      gone.abort();
      window.clearTimeout(timer);
    };
  }, [document, wanted, tube]);
  return view;
}
