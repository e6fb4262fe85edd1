import { expect, it } from "vitest";
import { turnsOf, writtenOrder } from "./order";

const IDS = ["r1", "rx", "r3"];

it("keeps an order by the rows of its bends, and writes it with their numbers", () => {
  const order = turnsOf("a1, B3 A2", IDS);
  expect(order).toEqual([
    { row: "r1", held: "A" },
    { row: "r3", held: "B" },
    { row: "rx", held: "A" },
  ]);
  expect(writtenOrder(order ?? [], IDS)).toBe("A1 B3 A2");
  // another bend before them all: the same bends have other numbers
  expect(writtenOrder(order ?? [], ["new", ...IDS])).toBe("A2 B4 A3");
});

it("knows no order in what names no bend", () => {
  expect([turnsOf("A4", IDS), turnsOf("C1", IDS), turnsOf("A", IDS)]).toEqual([null, null, null]);
  expect([turnsOf("xA1", IDS), turnsOf("A1x", IDS), turnsOf("A0", IDS), turnsOf("A1 B", IDS)]).toEqual([
    null,
    null,
    null,
    null,
  ]);
  expect([turnsOf("", IDS), turnsOf(" , ", IDS)]).toEqual([[], []]);
  const many = Array.from({ length: 12 }, (_, k) => `r${k + 1}`);
  expect(turnsOf("A12,, b11", many)).toEqual([
    { row: "r12", held: "A" },
    { row: "r11", held: "B" },
  ]);
});
