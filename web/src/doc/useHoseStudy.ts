import { api, take } from "../api/client";
import type { HoseStudy, Line } from "../api/types";
import { useAsked } from "./useAsked";

/** One hose looked at closely, after a short quiet: a moving one takes up to a second. */
export function useHoseStudy(document: Line, span: string, line: string): HoseStudy | null {
  const { answer } = useAsked(
    ["hose", document, span, line],
    (signal) => take(api.POST("/api/hose", { body: document, params: { query: { span, line } }, signal })),
    { quiet: 250, stays: true },
  );
  return answer?.laid && answer.laid.span !== span ? null : (answer ?? null);
}
