import { expect, it } from "vitest";
import { Newest } from "./newest";

/** Requests that are settled in any order. */
function asked(order: { of: number; ok: boolean }[]) {
  const newest = new Newest();
  const told: string[] = [];
  const settle: Record<number, { resolve: (value: string) => void; reject: (error: unknown) => void }> = {};
  for (const number of [1, 2, 3]) {
    const request = new Promise<string>((resolve, reject) => (settle[number] = { resolve, reject }));
    newest.ask(request, (answer) => told.push(answer.ok ? answer.value : `refused ${String(answer.error)}`));
  }
  return order.reduce(async (before, { of, ok }) => {
    const so_far = await before;
    if (ok) settle[of]?.resolve(`plan ${of}`);
    else settle[of]?.reject(of);
    await Promise.resolve();
    await Promise.resolve();
    return so_far;
  }, Promise.resolve(told));
}

it("shows answers as they come while none is older than the last", async () => {
  expect(
    await asked([
      { of: 1, ok: true },
      { of: 3, ok: true },
    ]),
  ).toEqual(["plan 1", "plan 3"]);
});

it("never shows an old plan as current after a newer request was refused", async () => {
  expect(
    await asked([
      { of: 3, ok: false },
      { of: 2, ok: true },
      { of: 1, ok: true },
    ]),
  ).toEqual(["refused 3"]);
});

it("passes an old refusal over", async () => {
  expect(
    await asked([
      { of: 2, ok: true },
      { of: 1, ok: false },
    ]),
  ).toEqual(["plan 2"]);
});
