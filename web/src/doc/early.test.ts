import { expect, it, vi } from "vitest";
import { Early } from "./early";

const LINE = { name: "a" };

it("hands out the answer that is under way, once", async () => {
  const ask = vi.fn((subject: { name: string }) => Promise.resolve(`plan of ${subject.name} ${ask.mock.calls.length}`));
  const early = new Early(ask);
  early.foresee(LINE);
  expect(await early.taken(LINE)).toBe("plan of a 1");
  expect(ask).toHaveBeenCalledTimes(1);
  expect(await early.taken(LINE)).toBe("plan of a 2");
});

it("asks at once for what nobody foresaw", async () => {
  const early = new Early(() => Promise.resolve("plan"));
  early.foresee({ name: "another" });
  expect(await early.taken(LINE)).toBe("plan");
});

it("tells a refusal to whoever fetches it, and to nobody else", async () => {
  const early = new Early(() => Promise.reject(new Error("away")));
  early.foresee({ name: "left behind" });
  early.foresee(LINE);
  await expect(early.taken(LINE)).rejects.toThrow("away");
});
