import { flushSync } from "react-dom";

/**
 * Make a change to the page and put the cursor where it belongs in it before the next key arrives.
 * A timer would come too late for a quick typist: browsers serve keys before timers.
 */
export function thenFocus(change: () => void, focus: () => void): void {
  flushSync(change);
  focus();
}
