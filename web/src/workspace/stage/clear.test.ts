import { expect, test } from "vitest";
import { clear } from "./clear";

const stage = { width: 400, height: 300 };
const words = { offsetWidth: 80, offsetHeight: 40 };
const number = (x: number, y: number) => ({ x, y, wide: 24, tall: 24 });

test("a label with room stays where it is", () => {
  expect(clear({ x: 200, y: 150 }, words, [number(300, 150)], stage)).toEqual({ x: 200, y: 150 });
});

test("a label on a number makes way and then touches nothing", () => {
  const numbers = [number(200, 150), number(200, 185)];
  const { x, y } = clear({ x: 200, y: 150 }, words, numbers, stage);
  for (const one of numbers) expect(Math.abs(one.x - x) >= 52 || Math.abs(one.y - y) >= 32).toBe(true);
});

test("no label leaves the stage", () => {
  const { y } = clear({ x: 200, y: 25 }, words, [number(200, 25)], stage);
  expect(y).toBeGreaterThanOrEqual(20);
});

test("where nothing is free the label stays", () => {
  expect(clear({ x: 200, y: 150 }, words, [{ x: 200, y: 150, wide: 400, tall: 300 }], stage)).toEqual({
    x: 200,
    y: 150,
  });
});
