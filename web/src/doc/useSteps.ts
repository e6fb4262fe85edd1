import { api, take } from "../api/client";
import type { Line, Step } from "../api/types";
import { useAsked } from "./useAsked";

const NONE: Step[] = [];

/** The order of work of a tube, asked for where a stage shows it. */
export function useSteps(document: Line, tube: string): Step[] {
  const ask = (signal: AbortSignal) =>
    take(api.POST("/api/steps", { body: document, params: { query: { span: tube } }, signal }));
  return useAsked(["steps", document, tube], ask, { stays: true }).answer ?? NONE;
}
