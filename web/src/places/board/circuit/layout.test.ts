import { expect, test } from "vitest";
import type { DrawnLine } from "./layout";
import { laidOut } from "./layout";

const line = (id: string, spans: string[], on: Partial<DrawnLine> = {}): DrawnLine => ({
  id,
  name: id,
  service: "fuel-low",
  colour_a: "",
  colour_b: "",
  label_a: "",
  label_b: "",
  role_a: "not known",
  role_b: "not known",
  unit_a: "",
  unit_b: "",
  joint_a: "",
  joint_b: "",
  on_a: "",
  on_b: "",
  spans: spans.map((span) => ({ span, what: "hose", branches: [] })),
  ...on,
});

test("a branch stands under its tee, whichever line comes first", () => {
  const all = [line("branch", ["h1"], { on_a: "main:t1" }), line("main", ["h1", "t1", "h2"])];
  const paper = laidOut(["branch", "main"], all);
  const [main, branch] = ["main", "branch"].map((id) => paper.lines.find((one) => one.line.id === id));
  const tee = main?.spans.find((one) => one.span === "t1");
  expect(branch?.left).toBe(tee?.x);
  expect(branch?.y).toBeGreaterThan(main?.y ?? 0);
  expect(paper.drops.map((one) => [one.x, one.from, one.to])).toEqual([[tee?.x, main?.y, branch?.y]]);
});

test("a line that ends on a tee is drawn from there, turned round", () => {
  const paper = laidOut(["main", "back"], [line("main", ["t1"]), line("back", ["a", "b"], { on_b: "main:t1" })]);
  const back = paper.lines.find((one) => one.line.id === "back");
  expect(back?.turned).toBe(true);
  expect(back?.spans.map((one) => one.span)).toEqual(["b", "a"]);
});

test("lines that wait for each other are drawn all the same", () => {
  const all = [line("a", ["t1"], { on_a: "b:t1" }), line("b", ["t1"], { on_a: "a:t1" })];
  expect(laidOut(["a", "b"], all).lines).toHaveLength(2);
});
