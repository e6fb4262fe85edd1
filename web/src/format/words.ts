import type { ComponentSpan, Condition, Damage, Fixture } from "../api/types";

/** The words of the trade for what is found, in the order people think of them. */
export const REASONS: Condition["reasons"] = [
  "rusted through",
  "weeping",
  "chafed",
  "crushed",
  "kinked",
  "nicked",
  "cross-threaded",
  "dangerous route",
  "brittle",
  "upgrade",
  "new line",
  "blocked",
  "stripped port",
  "bad old repair",
  "preventive",
  "missing",
];
export const URGENCIES: Condition["urgency"][] = ["off the road", "soon", "can wait"];
export const TWINS: Condition["twin"][] = ["not looked at", "sound", "due too", "no twin"];
export const REST: Condition["rest"][] = ["not looked at", "sound", "to be watched"];
export const CAUSES: Condition["cause"][] = [
  "not known",
  "contact",
  "heat",
  "trapped dirt",
  "vibration",
  "age",
  "workshop slip",
  "road or jack strike",
  "altered ride height",
  "bad old repair",
];
export const END_STATES: Condition["end_a"][] = ["not tried", "comes undone", "seized", "seized in an expensive part"];
export const SCHOOLS: Condition["school"][] = ["one clean piece", "economy"];
export const CHOICES = ["replace whole", "replace from a separation point", "splice"] as const;
export const DAMAGE: Damage["kind"][] = ["rust", "chafe", "crush", "kink", "nick", "crack"];
export const DEPTHS: Damage["depth"][] = ["surface", "deep", "through"];
export const FIXTURES: Fixture["kind"][] = ["clip", "sleeve", "grommet", "retainer"];
export const STATES: Fixture["state"][] = ["there", "broken", "missing", "to fit"];
export const FIXED_TO: Fixture["fixed_to"][] = [
  "",
  "the old place",
  "an existing hole",
  "a stud",
  "a bracket",
  "a hole to drill",
  "a hose, by a tie",
];

export const words = (list: readonly string[]) => list.map((word) => ({ id: word, name: word }));

/** What can be put into a line that is neither tube nor hose. */
export const COMPONENTS: ComponentSpan["what"][] = [
  "check valve",
  "reservoir",
  "filter",
  "restrictor",
  "shut-off valve",
  "cooler",
  "adapter",
  "union",
  "reducer",
  "elbow",
  "tee",
  "Y-piece",
  "manifold",
  "switch",
  "quick connector",
  "banjo stack",
];
