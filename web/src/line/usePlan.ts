import { useEffect, useMemo, useRef, useState } from "react";
import { api, sentence, take } from "../api/client";
import type { BenchReport, Line, Part, Plan } from "../api/types";

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

/** The plan of the document as typed, asked anew at every change; only the newest answer counts. */
export function usePlan(document: Line, bench: BenchReport | null): PlanView {
  const [view, setView] = useState<Omit<PlanView, "bench">>({ plan: null, part: null, old: false, message: "" });
  const asked = useRef(0);
  const shown = useRef(0);
  useEffect(() => {
    const mine = ++asked.current;
    take(api.POST("/api/preview", { body: document }) as Promise<{ data?: Plan; response: Response }>)
      .then((plan) => {
        if (mine < shown.current) return;
        shown.current = mine;
        setView((was) => ({ plan, part: plan.part ?? was.part, old: !plan.part && was.part !== null, message: "" }));
      })
      .catch((error: unknown) => {
        if (mine === asked.current) setView((was) => ({ ...was, old: was.part !== null, message: sentence(error) }));
      });
  }, [document]);
  return useMemo(() => ({ ...view, bench }), [view, bench]);
}
