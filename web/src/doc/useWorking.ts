import { api, take } from "../api/client";
import type { Derivation, Line } from "../api/types";
import { useAsked } from "./useAsked";

/** The working of one figure, asked for when it is opened; null while none is. */
export function useWorking(document: Line, tube: string, id: string | null): Derivation | null {
  const { answer } = useAsked(
    ["working", document, tube],
    (signal) => take(api.POST("/api/working", { body: document, params: { query: { span: tube } }, signal })),
    { wanted: id !== null, stays: true },
  );
  return answer?.find((one) => one.id === id) ?? null;
}
