import { useEffect, useState } from "react";
import { api, take } from "../api/client";
import type { HoseStudy, Line } from "../api/types";
import { Newest } from "./newest";

const QUIET_MS = 250;

/** One hose looked at closely, after a short quiet: a moving one takes up to a second. What stood there stays. */
export function useHoseStudy(document: Line, span: string, line: string): HoseStudy | null {
  const [study, setStudy] = useState<HoseStudy | null>(null);
  const [newest] = useState(() => new Newest());
  useEffect(() => {
    const gone = new AbortController();
    const later = setTimeout(() => {
      const params = { query: { span, line } };
      const answer = take(api.POST("/api/hose", { body: document, params, signal: gone.signal }));
      newest.ask(answer, (got) => {
        if (got.ok) setStudy(got.value);
      });
    }, QUIET_MS);
    return () => {
      gone.abort();
      clearTimeout(later);
    };
  }, [document, line, newest, span]);
  return study?.laid && study.laid.span !== span ? null : study;
}
