import { expect, test } from "vitest";
import { cutByHand, cutByKey } from "./cutPlace";

test("the right key goes on towards B, the left one back towards A, with shift by ten", () => {
  expect([cutByKey(50, "ArrowRight", false), cutByKey(50, "ArrowLeft", false)]).toEqual([51, 49]);
  expect([cutByKey(50, "ArrowRight", true), cutByKey(50, "ArrowLeft", true)]).toEqual([60, 40]);
  expect([cutByKey(4, "ArrowLeft", true), cutByKey(50, "ArrowUp", false)]).toEqual([0, null]);
});

test("a hand takes it along to scale, and not beyond end A", () => {
  expect(cutByHand({ x: 100, mm: 50 }, 130, 2)).toBe(65);
  expect(cutByHand({ x: 100, mm: 50 }, 80, 2)).toBe(40);
  expect(cutByHand({ x: 100, mm: 50 }, 0, 0.5)).toBe(0);
  expect(Number.isFinite(cutByHand({ x: 100, mm: 50 }, 101, 0))).toBe(true);
});
