import { api, take } from "../api/client";
import type { Closing, Line } from "../api/types";
import { localTime } from "./proving";
import { useAsked } from "./useAsked";

export interface ClosingView {
  closing: Closing | null;
  problem: string;
  /** Ask again, as when a run has gone on. */
  again: () => void;
}

/** Joints, steps and proofs of a line as typed. */
export function useClosing(document: Line, lineId: string): ClosingView {
  const { answer, problem, again } = useAsked(
    ["closing", document, lineId],
    (signal) => {
      const query = { line: lineId, today: localTime(new Date()).slice(0, 10) };
      return take(api.POST("/api/closing", { body: document, params: { query }, signal }));
    },
    { quiet: 150, stays: true },
  );
  return { closing: answer ?? null, problem, again };
}
