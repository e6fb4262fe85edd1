import { useEffect, useMemo, useState } from "react";
import { api, sentence, take } from "../api/client";
import type { BenchReport, Line, Part, Plan } from "../api/types";
import { Newest } from "./newest";

export interface PlanView {
  /** The plan of the document as typed, null until the first answer. */
  plan: Plan | null;
  /** The part to draw: the present one, or the last one that could be computed. */
  part: Part | null;
  /** The drawing is from before the reading that cannot be read. */
  old: boolean;
  message: string;
  /** What the tool makes of it; null where that is not asked for, or not known yet. */
  bench: BenchReport | null;
}

/** The plan of the document as typed, asked anew at every change. */
export function usePlan(document: Line, bench: BenchReport | null): PlanView {
  const [view, setView] = useState<Omit<PlanView, "bench">>({ plan: null, part: null, old: false, message: "" });
  const [newest] = useState(() => new Newest());
  useEffect(() => {
    newest.ask(take(api.POST("/api/preview", { body: document })), (answer) =>
      setView((was) =>
        answer.ok
          ? {
              plan: answer.value,
              part: answer.value.part ?? was.part,
              old: !answer.value.part && was.part !== null,
              message: "",
            }
          : { ...was, old: was.part !== null, message: sentence(answer.error) },
      ),
    );
  }, [document, newest]);
  return useMemo(() => ({ ...view, bench }), [view, bench]);
}
