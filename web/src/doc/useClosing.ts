import { useEffect, useState } from "react";
import { api, sentence, take } from "../api/client";
import type { Closing, Line } from "../api/types";
import { localTime } from "./proving";

const QUIET_MS = 150;

export interface ClosingView {
  closing: Closing | null;
  problem: string;
  /** Ask again, as when a run has gone on. */
  again: () => void;
}

/** Joints, steps and proofs of a line as typed; what stood there stays while the next answer is under way. */
export function useClosing(document: Line, lineId: string): ClosingView {
  const [told, setTold] = useState<{ closing: Closing | null; problem: string }>({ closing: null, problem: "" });
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let gone = false;
    const ask = () => {
      const query = { line: lineId, today: localTime(new Date()).slice(0, 10) };
      take(api.POST("/api/closing", { body: document, params: { query } }))
        .then((closing) => !gone && setTold({ closing, problem: "" }))
        .catch((error: unknown) => !gone && setTold((was) => ({ ...was, problem: sentence(error) })));
    };
    const timer = window.setTimeout(ask, QUIET_MS);
    return () => {
      gone = true;
      window.clearTimeout(timer);
    };
  }, [document, lineId, turn]);
  return { ...told, again: () => setTurn((was) => was + 1) };
}
