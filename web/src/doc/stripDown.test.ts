import { expect, test } from "vitest";
import type { SharedItem } from "../api/types";
import { merged } from "./stripDown";

const item = (id: string, what = id): SharedItem => ({
  id,
  lines: [],
  kind: "bolt",
  what,
  wrench: "",
  count: 1,
  where: "",
  fate: "reuse",
  note: "",
  photo: "",
  refitted: false,
});

const words = (items: readonly SharedItem[]) => items.map((one) => one.what);

test("what only one of two changed is as they left it", () => {
  const base = [item("a"), item("b")];
  expect(words(merged(base, [item("a", "mine"), item("b")], [item("a"), item("b", "theirs")]))).toEqual([
    "mine",
    "theirs",
  ]);
});

test("what both added is there", () => {
  expect(words(merged([item("a")], [item("a"), item("x")], [item("a"), item("y")]))).toEqual(["a", "y", "x"]);
});

test("what one took out stays out, unless the other changed it meanwhile", () => {
  const base = [item("a"), item("b")];
  expect(words(merged(base, [item("b")], base))).toEqual(["b"]);
  expect(words(merged(base, [item("b")], [item("a", "changed"), item("b")]))).toEqual(["changed", "b"]);
  expect(words(merged(base, base, [item("b")]))).toEqual(["b"]);
  expect(words(merged(base, [item("a", "mine"), item("b")], [item("b")]))).toEqual(["b", "mine"]);
});
