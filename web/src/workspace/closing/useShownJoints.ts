import { useEffect } from "react";
import type { Closing } from "../../api/types";
import { useSelection } from "../../doc/select";

const SAID: Record<string, string> = {
  open: "not tight yet",
  tight: "tight, not looked at",
  drying: "dried, waiting",
  look: "to be looked at",
  dry: "dry",
  wet: "wet",
  mended: "mended, to be dried",
};

export const sayState = (state: string): string => SAID[state] ?? state;

/** Shows how the joints stand on the strip for as long as the stage is open. */
export function useShownJoints(closing: Closing | null): void {
  const { showJoints } = useSelection();
  useEffect(() => {
    showJoints(
      (closing?.joints ?? []).map((joint) => {
        const state = closing?.standing.find((one) => one.joint === joint.id)?.state ?? "open";
        return {
          id: joint.id,
          span: joint.span,
          end: joint.end,
          state,
          said: `${joint.place}: ${joint.name}, ${sayState(state)}`,
        };
      }),
    );
  }, [closing, showJoints]);
  useEffect(() => () => showJoints([]), [showJoints]);
}
