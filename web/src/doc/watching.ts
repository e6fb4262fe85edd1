import type { Closing, JointEvent, JointStanding, LineJoint, Watch } from "../api/types";
import { left } from "./proving";

/** How a joint stands at a moment: `look` once its wait is over. */
export type Standing = JointStanding["state"] | "look";

export interface Act {
  what: JointEvent["what"];
  word: string;
}

/** What can be said of a joint: the usual next thing first, then what else it may be. */
export interface Acts {
  next: Act | null;
  others: Act[];
}

export function standsAt(standing: JointStanding | undefined, now: Date): Standing {
  if (!standing) return "open";
  return standing.state === "drying" && left(standing.until, now) === "" ? "look" : standing.state;
}

/** What can be said of a joint of a line that is being proved. */
export function actsOf(closing: Closing, joint: LineJoint, now: Date): Acts {
  const asked = closing.steps.some(
    (step) => step.joint === joint.id && step.does === "looks" && !closing.done.includes(step.id),
  );
  const standing = closing.standing.find((one) => one.joint === joint.id);
  return actsAt(closing.watch, standing, now, asked);
}

/** `asked` says that it has to be looked at (once more). */
export function actsAt(watch: Watch, standing: JointStanding | undefined, now: Date, asked = true): Acts {
  const begin: Act = { what: "dried", word: watch.begin };
  const good: Act = { what: "dry", word: watch.good };
  const bad: Act = { what: "wet", word: watch.bad };
  const state = standsAt(standing, now);
  switch (state) {
    case "open":
    case "tight":
      if (watch.begin) return { next: begin, others: [] };
      if (watch.each) return { next: good, others: [bad] };
      // what is not on yet cannot leak
      return { next: null, others: state === "open" ? [] : [bad] };
    case "mended":
      if (watch.begin) return { next: begin, others: [] };
      // where the hold test looks at all joints, one that is newer than the mending says so
      return { next: watch.each || standing?.held ? good : null, others: [bad] };
    case "drying":
      // it may be seen before the wait is over, which proves nothing yet
      return { next: standing?.first_look ? null : { what: "dry", word: watch.early }, others: [bad] };
    case "look":
      return { next: good, others: [bad] };
    case "wet": {
      const rung = standing?.rung;
      const nextDoor: Act[] = watch.each ? [{ what: "next door", word: "It is next door" }] : [];
      return { next: rung ? { what: rung, word: `Done: ${rung}` } : null, others: nextDoor };
    }
    case "dry": {
      const again = watch.begin ? { ...begin, word: `${watch.begin} again` } : good;
      return asked && watch.each ? { next: again, others: [bad] } : { next: null, others: [watch.begin ? again : bad] };
    }
    default:
      return state satisfies never;
  }
}
