import { useMemo } from "react";
import { api, Refusal, take } from "../api/client";
import type { BenchReport, Line } from "../api/types";
import { useAsked } from "./useAsked";

export interface BenchView {
  report: BenchReport | null;
  /** Why there is none where the plan itself is fine: it is too much to reckon. */
  beyond: string;
  /** It is being worked out. */
  asking: boolean;
}

/** What the tool makes of the line as typed; asked for only where it is shown, after a quiet: carrying out every bend
 * takes longer than a key. */
export function useBench(document: Line, shown: boolean, tube: string): BenchView {
  const { answer, problem, error, asking } = useAsked(
    ["bench", document, tube],
    (signal) => take(api.POST("/api/bench", { body: document, params: { query: { span: tube } }, signal })),
    { wanted: shown && tube !== "", quiet: 350 },
  );
  // what keeps it from being planned is said beside the readings
  const beyond = error instanceof Refusal && error.status === 413 ? problem : "";
  return useMemo(() => ({ report: answer ?? null, beyond, asking }), [answer, beyond, asking]);
}
