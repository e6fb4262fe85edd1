import { beforeEach, expect, test, vi } from "vitest";
import { api } from "../api/client";
import type { Line } from "../api/types";
import { asideOf, bringUpToDate, draftsOf, dropAside, putAside } from "./draft";

const line = (notes: string) => ({ notes }) as unknown as Line;
const shelf = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => shelf.get(key) ?? null,
  setItem: (key: string, value: string) => void shelf.set(key, value),
  removeItem: (key: string) => void shelf.delete(key),
});

/** The server brings a document up to date, or says that it cannot. */
const upToDate = (status = 200) =>
  vi
    .spyOn(api, "POST")
    .mockImplementation(((_path: string, { body }: { body: { notes: string } }) =>
      Promise.resolve(
        status === 200
          ? { data: line(`${body.notes} of today`), response: { ok: true } }
          : { error: { message: "no" }, response: { ok: false, status } },
      )) as never);

beforeEach(() => {
  vi.restoreAllMocks();
  shelf.clear();
});

test("a draft is kept, read and dropped, each line its own", () => {
  const [one, other] = [draftsOf("a"), draftsOf("b")];
  one.keep({ version: 3, document: line("mine"), base: null });
  expect(one.read()).toEqual({ version: 3, document: line("mine"), base: null });
  expect(other.read()).toBeNull();
  one.drop();
  expect(one.read()).toBeNull();
});

test("a draft that is no draft reads as none", () => {
  shelf.set("bendrel.draft.a", "{not json");
  expect(draftsOf("a").read()).toBeNull();
});

test("document and base are both brought up to date", async () => {
  upToDate();
  draftsOf("a").keep({ version: 3, document: line("mine"), base: line("base") });
  await bringUpToDate("a");
  expect(draftsOf("a").read()).toEqual({ version: 3, document: line("mine of today"), base: line("base of today") });
});

test("where nothing is kept nothing is asked; a base that is not known stays unknown", async () => {
  const asked = upToDate();
  await bringUpToDate("a");
  expect(asked).not.toHaveBeenCalled();
  draftsOf("a").keep({ version: 3, document: line("mine"), base: null });
  await bringUpToDate("a");
  expect(draftsOf("a").read()?.base).toBeNull();
  expect(asked).toHaveBeenCalledTimes(1);
});

test.each([422, 404])("what cannot be read any more is put aside whole (%i)", async (status) => {
  upToDate(status);
  draftsOf("a").keep({ version: 3, document: line("mine"), base: null });
  const text = shelf.get("bendrel.draft.a");
  await bringUpToDate("a");
  expect([draftsOf("a").read(), asideOf("a"), asideOf("b")]).toEqual([null, text, null]);
  dropAside("a");
  expect(asideOf("a")).toBeNull();
});

test("a draft without a version is put aside and nobody is asked", async () => {
  const asked = upToDate();
  shelf.set("bendrel.draft.a", JSON.stringify({ document: line("mine") }));
  await bringUpToDate("a");
  expect([asideOf("a") !== null, asked.mock.calls.length]).toEqual([true, 0]);
});

test.each([500, 503])("a server that fails says nothing of the draft (%i)", async (status) => {
  upToDate(status);
  draftsOf("a").keep({ version: 3, document: line("mine"), base: null });
  await expect(bringUpToDate("a")).rejects.toMatchObject({ status });
  expect([draftsOf("a").read()?.version, asideOf("a")]).toEqual([3, null]);
});

test("a server that is away says nothing of the draft either", async () => {
  vi.spyOn(api, "POST").mockRejectedValue(new TypeError("fetch"));
  draftsOf("a").keep({ version: 3, document: line("mine"), base: null });
  await expect(bringUpToDate("a")).rejects.toMatchObject({ status: 0 });
  expect(draftsOf("a").read()?.version).toBe(3);
});

test("putting aside what is not there leaves what was put aside before", () => {
  shelf.set("bendrel.draft.a", "text");
  putAside("a");
  putAside("a");
  expect(asideOf("a")).toBe("text");
});
