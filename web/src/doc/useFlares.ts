import { api, take } from "../api/client";
import type { FlareStands, Making } from "../api/types";
import { useAsked } from "./useAsked";

/** How the flares of a part stand, as noted so far. */
export function useFlares(making: Making): readonly FlareStands[] {
  const body = { document: making.document, span: making.span, flares: making.state.flares };
  const { answer } = useAsked(["flares", body], (signal) => take(api.POST("/api/bench/flares", { body, signal })), {
    stays: true,
  });
  return answer ?? [];
}
