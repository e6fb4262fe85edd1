import { expect, test } from "vitest";
import type { Part } from "../../api/types";
import { spareOf } from "./spare";

const part = (spare_mm: number, longA = 0, longB = 0) =>
  ({
    developed_mm: 500,
    spare_mm,
    end_a: { allowance_mm: 3, leave_long_mm: longA },
    end_b: { allowance_mm: 2, leave_long_mm: longB },
  }) as unknown as Part;

test("held at A the spare lies beyond end B, with that end's flare", () => {
  expect(spareOf(part(25), true, "mm")).toEqual({ from_mm: 500, to_mm: 527, text: "spare 25" });
});

test("held at B it lies before end A, with that end's flare", () => {
  expect(spareOf(part(25), false, "mm")).toEqual({ from_mm: -28, to_mm: 0, text: "spare 25" });
});

test("an end that is left long has its length and the spare together", () => {
  expect(spareOf(part(5, 0, 20), true, "mm")).toEqual({ from_mm: 500, to_mm: 527, text: "long 25" });
  expect(spareOf(part(5, 0, 20), false, "mm")?.text).toBe("spare 5");
});

test("only a flare is only a flare, and nothing is nothing", () => {
  expect(spareOf(part(0), true, "mm")?.text).toBe("flare");
  const bare = { ...part(0), end_b: { allowance_mm: 0, leave_long_mm: 0 } } as Part;
  expect(spareOf(bare, true, "mm")).toBeNull();
});
