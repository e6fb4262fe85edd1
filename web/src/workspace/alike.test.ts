import { expect, test } from "vitest";
import type { Finding, Span } from "../api/types";
import { alikeOf, placesOf } from "./alike";

const said = (where: Partial<Finding["where"]>, more: Partial<Finding> = {}): Finding => ({
  severity: "caution",
  code: "joint_care",
  title: "Care with 3003 aluminium",
  message: "It fatigues.",
  source: { kind: "common practice", text: "" },
  advice: "",
  safety: false,
  set_aside: "",
  stage: "plan",
  ...more,
  where: { kind: "span", span: "", row: "", item: "", ...where },
});

const SPANS = [
  { id: "s1", kind: "rigid", state: "stays" },
  { id: "h1", kind: "hose" },
  { id: "s2", kind: "rigid", state: "new" },
  { id: "c1", kind: "component", what: "cooler" },
  { id: "h2", kind: "hose" },
] as unknown as Span[];

test("the same words of several pieces are one thing to settle, with its places", () => {
  const [alike, ...rest] = alikeOf([
    said({ span: "s1" }),
    said({ span: "h2" }),
    said({ kind: "end", span: "s2", end: "B" }),
  ]);
  expect(rest).toEqual([]);
  expect(placesOf(alike ?? [], SPANS)).toBe("old tube 1; hose 2 and tube 2, end B");
  expect(placesOf([said({ span: "c1" })], SPANS)).toBe("cooler");
  const plain = ["s1", "h2", "c1"].map((span) => said({ span }));
  expect(placesOf(plain, SPANS)).toBe("old tube 1, hose 2 and cooler");
});

test("other words, another way out and every stop stand by themselves", () => {
  const fix = { label: "Use the other", changes: [] } as unknown as Finding["fix"];
  const apart = [
    said({ span: "s1" }),
    said({ span: "s2" }, { message: "It corrodes." }),
    said({ span: "h1" }, { fix }),
    said({ span: "h1" }, { severity: "stop" }),
    said({ span: "h2" }, { severity: "stop" }),
  ];
  expect(alikeOf(apart).map((alike) => alike.length)).toEqual([1, 1, 1, 1, 1]);
});

test("bends of one tube go together though their figures differ, those of another tube do not", () => {
  const bend = (span: string, number: number) =>
    said({ kind: "bend", span, row: `r${number}`, number }, { code: "flattens", message: `${number} %` });
  const groups = alikeOf([bend("s1", 1), bend("s1", 3), bend("s2", 1)]);
  expect(groups.map((alike) => placesOf(alike, SPANS))).toEqual(["bends 1, 3", "bends 1"]);
});
