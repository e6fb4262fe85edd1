import { beforeEach, expect, test, vi } from "vitest";
import { api, Refusal } from "../api/client";
import type { HoseSpan, Line, Looked } from "../api/types";
import { letIn, mend, restructure, setPiece, stillDamaged } from "./chain";

const line = (notes: string) => ({ notes, spans: [] }) as unknown as Line;

/** What is typed, with every flush counted. */
class Store {
  document = line("typed");
  flushed = 0;
  edit = (change: (was: Line) => Line) => void (this.document = change(this.document));
  flush = () => {
    this.flushed += 1;
    return Promise.resolve();
  };
}

const answering = (answer: (body: Record<string, unknown>) => object) =>
  vi
    .spyOn(api, "POST")
    .mockImplementation(((_path: string, asked: { body: Record<string, unknown> }) =>
      Promise.resolve({ data: answer(asked.body), response: { ok: true } })) as never);

let store: Store;
beforeEach(() => {
  vi.restoreAllMocks();
  store = new Store();
});

test("an edit of the chain is asked with what was typed and taken at once", async () => {
  const asked = answering(() => ({ document: line("turned"), span: "s2" }));
  expect(await restructure(store, { kind: "turn", span: "s1" })).toEqual({ span: "s2", problem: "" });
  expect([store.document.notes, store.flushed]).toEqual(["turned", 2]);
  expect(asked.mock.calls[0]).toMatchObject([
    "/api/chain",
    { body: { document: { notes: "typed" }, edit: { kind: "turn", span: "s1", side: "B", reduce: null, at: "" } } },
  ]);
});

test("what is typed while it is asked is kept, and asked once more with it", async () => {
  let times = 0;
  answering((body) => {
    times += 1;
    if (times === 1) store.document = line("typed more");
    return { document: line(`turned ${(body["document"] as Line).notes}`), span: "s1" };
  });
  await restructure(store, { kind: "turn", span: "s1" });
  expect([times, store.document.notes]).toEqual([2, "turned typed more"]);
});

test("a refusal is one sentence, and the line stands as it was", async () => {
  vi.spyOn(api, "POST").mockRejectedValue(new Refusal("The cut lies in an arc.", 422));
  expect(await mend(store, {} as never, "hose", "worn")).toEqual({
    span: null,
    problem: "Bendrel does not answer. Is it still running?",
  });
  vi.spyOn(api, "POST").mockResolvedValue({
    error: { message: "The cut lies in an arc." },
    response: { ok: false, status: 422 },
  } as never);
  expect(await mend(store, {} as never, "hose", "worn")).toEqual({ span: null, problem: "The cut lies in an arc." });
  expect([store.document.notes, store.flushed]).toEqual(["typed", 2]);
});

test("what is let in is taken with its span, and what is refused is not", async () => {
  answering(() => ({ document: line("let in"), span: "c1", place: { reasons: [] } }));
  expect(await letIn(store, {} as never)).toEqual({ span: "c1", problem: "" });
  expect(store.document.notes).toBe("let in");
  answering(() => ({ document: null, span: "", place: { reasons: [{ text: "No straight has room." }] } }));
  expect(await letIn(store, {} as never)).toEqual({ span: null, problem: "No straight has room." });
  answering(() => ({ document: null, span: "", place: { reasons: [] } }));
  expect((await letIn(store, {} as never)).problem).toBe("It is refused here.");
  expect(store.document.notes).toBe("let in");
});

test("a piece is changed by its id", () => {
  const spans = [
    { id: "h1", kind: "hose", hose: "a" },
    { id: "h2", kind: "hose", hose: "a" },
  ];
  const made = setPiece<HoseSpan>({ spans } as unknown as Line, "h2", { hose: "b" });
  expect(made.spans.map((span) => (span as HoseSpan).hose)).toEqual(["a", "b"]);
});

test("damage counts while its old tube is still there; on a line that is all new all of it does", () => {
  const looked = { damage: [{ span: "s1" }, { span: "s2" }] } as unknown as Looked;
  const of = (...states: string[]) =>
    ({
      spans: states.map((state, k) => ({ id: `s${k + 1}`, kind: state === "hose" ? "hose" : "rigid", state })),
    }) as unknown as Line;
  const left = (one: Line) => stillDamaged(one, looked).map(({ span }) => span);
  expect(left(of("stays", "to make"))).toEqual(["s1"]);
  expect(left(of("to make", "stays"))).toEqual(["s2"]);
  expect(left(of("to make", "to make"))).toEqual(["s1", "s2"]);
  expect(left(of("hose", "to make"))).toEqual(["s1", "s2"]);
  // an old tube alone has lost nothing yet, whatever its damage calls it
  expect(left({ spans: [{ id: "s9", kind: "rigid", state: "stays" }] } as unknown as Line)).toEqual(["s1", "s2"]);
});
