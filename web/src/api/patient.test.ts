import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { patient, TRIES } from "./patient";

const answer = (status: number) => ({
  response: new Response("{}", { status, headers: { "Retry-After": "1" } }),
});

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe("asking where there is no place just now", () => {
  it("asks the same again after the time the server names", async () => {
    const call = vi
      .fn<(path: string, body: object) => Promise<ReturnType<typeof answer>>>()
      .mockResolvedValueOnce(answer(429))
      .mockResolvedValueOnce(answer(429))
      .mockResolvedValueOnce(answer(200));
    const said = patient(call)("/api/lines", { leg: 3 });
    await vi.advanceTimersByTimeAsync(900);
    expect(call).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(2000);
    expect((await said).response.status).toBe(200);
    expect(call.mock.calls).toEqual(Array(3).fill(["/api/lines", { leg: 3 }]));
  });

  it("tells the person in the end", async () => {
    const call = vi.fn(() => Promise.resolve(answer(429)));
    const said = patient(call)();
    await vi.advanceTimersByTimeAsync(60_000);
    expect((await said).response.status).toBe(429);
    expect(call).toHaveBeenCalledTimes(TRIES + 1);
  });

  it("asks once where the answer is of another kind", async () => {
    const call = vi.fn(() => Promise.resolve(answer(409)));
    expect((await patient(call)()).response.status).toBe(409);
    expect(call).toHaveBeenCalledTimes(1);
  });

  it("does not ask on for one who has gone", async () => {
    const call = vi
      .fn<() => Promise<ReturnType<typeof answer>>>()
      .mockResolvedValueOnce(answer(429))
      .mockRejectedValueOnce(new DOMException("gone", "AbortError"));
    const said = expect(patient(call)()).rejects.toThrow("gone");
    await vi.advanceTimersByTimeAsync(5000);
    await said;
    expect(call).toHaveBeenCalledTimes(2);
  });
});
