import { useEffect, useState } from "react";
import { api, take } from "../api/client";
import type { BenchReport, Line } from "../api/types";

const QUIET_MS = 350;

/**
 * What the tool makes of the line as typed; asked for only where it is shown, and after a short quiet,
 * because carrying out every bend takes longer than a key.
 */
export function useBench(document: Line, wanted: boolean, tube: string): BenchReport | null {
  const [report, setReport] = useState<BenchReport | null>(null);
  useEffect(() => {
    if (!wanted || !tube) {
      setReport(null);
      return;
    }
    let gone = false;
    const timer = window.setTimeout(() => {
      take(api.POST("/api/bench", { body: document, params: { query: { span: tube } } }))
        .then((told) => !gone && setReport(told))
        .catch(() => !gone && setReport(null)); // what keeps it from being planned is said beside the readings
    }, QUIET_MS);
    return () => {
      gone = true;
      window.clearTimeout(timer);
    };
  }, [document, wanted, tube]);
  return report;
}
