import type { Act, Tweak, TypedOffer, Unit } from "../../api/types";
import { sayAngle, sayClock, sayLength } from "../../format/units";

type EndName = TypedOffer["lands"];

/** The end that is home while the other one lands. */
export const homeOf = (lands: EndName): EndName => (lands === "B" ? "A" : "B");

/** Where an end lies, of which nothing is read yet. */
export const blankLanding = (unit: Unit, plane_by: TypedOffer["plane_by"]): Omit<TypedOffer, "then" | "lands"> => ({
  along: "",
  short: false,
  off: "",
  off_clock: "",
  tilt: "",
  tilt_clock: "",
  plane_by,
  unit,
});

/** A trial fit of which nothing is read yet, at the end that `lands` with the other one home. */
export const blankOffer = (unit: Unit, plane_by: TypedOffer["plane_by"], lands: EndName): TypedOffer => ({
  ...blankLanding(unit, plane_by),
  lands,
  then: [],
});

/** What was read at a trial fit, in a few words. */
export function sayOffer(offer: TypedOffer): string {
  const said = [
    offer.along && `${offer.along} too ${offer.short ? "short" : "long"}`,
    offer.off && `${offer.off} beside${offer.off_clock ? `, towards ${offer.off_clock}` : ""}`,
    offer.tilt && `leans ${offer.tilt}${offer.tilt_clock ? ` towards ${offer.tilt_clock}` : ""}`,
  ].filter(Boolean);
  return said.length > 0 ? `end ${offer.lands}: ${said.join(" · ")}` : "nothing read";
}

/** What was done after a trial fit. */
export function sayAct(act: Act): string {
  if (act.kind === "twist")
    return `straight ${act.at} twisted ${sayAngle(Math.abs(act.deg))} ${act.deg > 0 ? "clockwise" : "anticlockwise"}`;
  return `bend ${act.at} ${act.deg > 0 ? "closed" : "opened"} by ${sayAngle(Math.abs(act.deg))}`;
}

export interface SaidTweak {
  title: string;
  hold: string;
  until: string;
  degrees: string;
}

/** How a person does a tweak by hand: where to hold, which way, and until when. */
export function sayTweak(tweak: Tweak, unit: Unit, lands: EndName): SaidTweak {
  const { act } = tweak;
  const home = homeOf(lands);
  const far = sayLength(tweak.end_moves_mm, unit);
  const until =
    tweak.end_moves_mm >= 0.8
      ? `until end ${lands} has moved ${far} towards ${sayClock(tweak.towards_clock_deg)}`
      : `by the angle: end ${lands} itself hardly moves`;
  const degrees = `${sayAngle(Math.abs(act.deg))} by the gauge`;
  if (act.kind === "twist")
    return {
      title: `Twist the straight before bend ${act.at}`,
      hold: `Hold the straight at its side of ${home}, turn its side of ${lands} ${act.deg > 0 ? "clockwise" : "anticlockwise"} as seen from ${home}`,
      until,
      degrees,
    };
  return {
    title: `${act.deg > 0 ? "Close" : "Open"} bend ${act.at}`,
    hold: `Hold the part at bend ${act.at} on its side of ${home}, ${act.deg > 0 ? `push the side of ${lands} further round` : `draw the side of ${lands} back`}`,
    until,
    degrees,
  };
}
