import { useLayoutEffect, useMemo, useState } from "react";
import { api, sentence, take } from "../api/client";
import type { BenchReport, Line } from "../api/types";
import type { BenchView } from "./useBench";
import { Early } from "./early";
import { withoutFilled } from "./filled";
import { Newest } from "./newest";
import type { Seen } from "./planView";
import { NOTHING_SEEN, seenAfter, seenWithout } from "./planView";

export interface PlanView extends Seen {
  /** What the tool makes of it; null where that is not asked for, or not known yet. */
  bench: BenchReport | null;
  /** Why the tool was not asked to the end. */
  beyond: string;
  /** What is under way: the plan of what was typed last, or what the tool makes of it; blank where nothing is. */
  waiting: string;
}

/** Plans, asked for as soon as a document is changed. */
export const plans = new Early((document: Line) => take(api.POST("/api/preview", { body: document })));

/** The plan of the document as typed, asked anew at every change. */
export function usePlan(document: Line, bench: BenchView, tube: string): PlanView {
  const [seen, setSeen] = useState(NOTHING_SEEN);
  const [settled, setSettled] = useState<Line | null>(null);
  const [newest] = useState(() => new Newest());
  useLayoutEffect(() => {
    newest.ask(plans.taken(document), (answer) => {
      setSettled(document);
      setSeen((was) => (answer.ok ? seenAfter(was, answer.value, tube) : seenWithout(was, sentence(answer.error))));
    });
  }, [document, newest, tube]);
  const waiting = settled !== document ? "The line" : bench.asking ? "What the tool makes of it" : "";
  const plan = useMemo(() => withoutFilled(seen.plan, settled, document), [seen.plan, settled, document]);
  return useMemo(
    () => ({ ...seen, plan, bench: bench.report, beyond: bench.beyond, waiting }),
    [seen, plan, bench, waiting],
  );
}
