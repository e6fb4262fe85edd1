import type { By } from "../../api/types";

/** How a place on the line is read; `middle` is a wire mark at the middle of the bend. */
export type Method = By | "middle";

export const METHODS_TO_B: By[] = ["leg", "wire", "string"];
export const METHODS: Method[] = ["leg", "wire", "middle", "string"];

export const METHOD_WORDS: Record<Method, { short: string; long: string }> = {
  leg: { short: "rule", long: "rule or tape from bend to bend" },
  wire: { short: "wire", long: "marks on the straightened wire where the bend starts and ends" },
  middle: { short: "wire, mid", long: "a mark on the straightened wire at the middle of the bend" },
  string: { short: "string", long: "string around the curve, from the start of the bend before" },
};
