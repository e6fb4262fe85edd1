import { useEffect } from "react";
import type { Closing } from "../../api/types";
import { useSelection } from "../../doc/select";

/** The words for how a joint stands, as they are said of what the line carries. */
export const sayState = (closing: Closing, state: string): string => closing.watch.stands[state] ?? state;

/** Shows how the joints stand on the strip for as long as the stage is open. */
export function useShownJoints(closing: Closing | null): void {
  const { showJoints } = useSelection();
  useEffect(() => {
    if (!closing) {
      showJoints([]);
      return;
    }
    showJoints(
      closing.joints.map((joint) => {
        const state = closing.standing.find((one) => one.joint === joint.id)?.state ?? "open";
        return {
          id: joint.id,
          span: joint.span,
          end: joint.end,
          state,
          said: `${joint.place}: ${joint.name}, ${sayState(closing, state)}`,
        };
      }),
    );
  }, [closing, showJoints]);
  useEffect(() => () => showJoints([]), [showJoints]);
}
