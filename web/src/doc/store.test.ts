import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import type { Line, OpenLine } from "../api/types";
import type { Draft, Drafts } from "./draft";
import { LineStore, QUIET_MS, RETRY_MS } from "./store";

const line = (notes: string, name = "line"): Line => ({ name, notes }) as unknown as Line;
const note = (store: LineStore) => store.getState().document.notes;

/** A server with a history of documents, whose answers can be held back. */
class Server {
  steps = [line("first")];
  head = 0;
  version = 1;
  refuse: Refusal | null = null;
  saves = 0;
  private held: (() => void)[] = [];
  holding = false;

  private async answer(work: () => OpenLine): Promise<OpenLine> {
    // what the server does it does when asked; only its answer can be late
    const done = this.refuse;
    const value = done ? null : work();
    if (this.holding) await new Promise<void>((resolve) => this.held.push(resolve));
    if (done || !value) throw done ?? new Refusal("nothing", 500);
    return value;
  }

  opened(): OpenLine {
    return {
      id: "x",
      version: this.version,
      document: this.steps[this.head],
      can_undo: this.head > 0,
      can_redo: this.head < this.steps.length - 1,
    } as unknown as OpenLine;
  }

  save = (version: number, document: Line): Promise<OpenLine> => {
    this.saves++;
    return this.answer(() => {
      if (version !== this.version)
        throw new Refusal("saved elsewhere", 409, this.version, this.steps[this.head] ?? null);
      this.steps = [...this.steps.slice(0, this.head + 1), document];
      this.head++;
      this.version++;
      return this.opened();
    });
  };

  step = (way: "undo" | "redo", version: number): Promise<OpenLine> =>
    this.answer(() => {
      if (version !== this.version)
        throw new Refusal("saved elsewhere", 409, this.version, this.steps[this.head] ?? null);
      const to = this.head + (way === "undo" ? -1 : 1);
      if (!this.steps[to]) throw new Refusal("nothing to undo", 422);
      this.head = to;
      this.version++;
      return this.opened();
    });

  foreseen: Line[] = [];
  foresee = (document: Line) => void this.foreseen.push(document);

  release(): void {
    this.holding = false;
    for (const go of this.held.splice(0)) go();
  }
}

class Drawer implements Drafts {
  kept: Draft | null = null;
  keep = (draft: Draft) => void (this.kept = draft);
  drop = () => void (this.kept = null);
  read = () => this.kept;
}

let server: Server;
let drawer: Drawer;
const open = () => new LineStore(server.opened(), server, drawer);
const type = (store: LineStore, notes: string) => store.edit((was) => ({ ...was, notes }));
const quiet = (ms = QUIET_MS) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  drawer = new Drawer();
});
afterEach(() => vi.useRealTimers());

describe("a line being edited", () => {
  it("saves after a short quiet, once for many keys", async () => {
    const store = open();
    type(store, "a");
    await quiet(QUIET_MS / 2);
    type(store, "ab");
    await quiet();
    expect([server.saves, server.steps.at(-1)?.notes, store.getState().save]).toEqual([1, "ab", "saved"]);
    expect(drawer.kept).toBeNull();
  });

  it("has what is typed asked about before anybody draws it", () => {
    const store = open();
    const heard: string[] = [];
    store.subscribe(() => heard.push(`drawn ${note(store)} of ${server.foreseen.length}`));
    type(store, "a");
    store.edit((was) => was);
    type(store, "ab");
    expect(heard).toEqual(["drawn a of 1", "drawn ab of 2"]);
    expect(server.foreseen.at(-1)).toBe(store.getState().document);
  });

  it("keeps what is typed while a save is under way, and saves it next", async () => {
    const store = open();
    type(store, "a");
    server.holding = true;
    await quiet();
    type(store, "ab");
    server.release();
    await quiet(0);
    expect([note(store), store.getState().save]).toEqual(["ab", "typing"]);
    await quiet();
    expect([server.steps.at(-1)?.notes, server.version]).toEqual(["ab", 3]);
  });

  it("does not conflict with itself after a reload in the middle of typing", async () => {
    const store = open();
    type(store, "a");
    server.holding = true;
    await quiet();
    type(store, "ab");
    server.release();
    await quiet(0);
    const again = open(); // the page was reloaded: the draft is what it goes on with
    expect(note(again)).toBe("ab");
    await again.flush();
    expect([again.getState().conflict, again.getState().save, server.steps.at(-1)?.notes]).toEqual([
      null,
      "saved",
      "ab",
    ]);
  });

  it("conflicts where the line was saved elsewhere since its draft was typed, and overwrites nothing", async () => {
    const left = open();
    type(left, "mine");
    // the page is gone before it is quiet; somebody else saves in the meantime
    await server.save(1, line("theirs"));
    const again = open();
    expect(note(again)).toBe("mine");
    await again.flush();
    const { save, conflict } = again.getState();
    expect([save, conflict?.theirs.notes, conflict?.base?.notes]).toEqual(["conflict", "theirs", "first"]);
    expect([server.steps.at(-1)?.notes, server.version]).toEqual(["theirs", 2]);
    expect([note(again), drawer.kept?.document.notes]).toEqual(["mine", "mine"]);
  });

  it("keeps what is typed while an undo is under way", async () => {
    const store = open();
    type(store, "a");
    await quiet();
    server.holding = true;
    store.undo();
    await quiet(0);
    store.edit((was) => ({ ...was, name: "renamed" }));
    server.release();
    await quiet(0);
    expect(store.getState().document).toEqual(line("first", "renamed"));
    await quiet();
    expect(server.steps.at(-1)).toEqual(line("first", "renamed"));
  });

  it("undoes what was typed last, even if it was not saved yet", async () => {
    const store = open();
    type(store, "a");
    store.undo();
    await quiet(0);
    expect([note(store), store.getState().opened.can_redo]).toEqual(["first", true]);
    store.redo();
    await quiet(0);
    expect(note(store)).toBe("a");
    store.redo(); // once too often
    await quiet(0);
    expect(store.getState().save).toBe("saved");
  });

  it("drops with undo what cannot be saved, and brings back what is", async () => {
    const store = open();
    server.refuse = new Refusal("Rows: may have 200 entries at most.", 422);
    type(store, "too much");
    await quiet();
    expect([store.getState().save, drawer.kept === null]).toEqual(["refused", false]);
    store.undo();
    await quiet(0);
    expect([note(store), store.getState().save, drawer.kept]).toEqual(["first", "saved", null]);
    server.refuse = null;
    type(store, "a");
    await quiet();
    expect([server.steps.at(-1)?.notes, server.version]).toEqual(["a", 2]);
  });

  it("runs a save that the page's end asks for in its turn", async () => {
    const store = open();
    type(store, "a");
    server.holding = true;
    const first = store.flush();
    await quiet(0);
    type(store, "ab");
    const second = store.flush();
    await quiet(0);
    expect(server.saves).toBe(1);
    server.release();
    await Promise.all([first, second]);
    expect([server.saves, server.steps.at(-1)?.notes, store.getState().conflict]).toEqual([2, "ab", null]);
  });

  it.each([404, 422])("does not try again by itself what was refused (%i)", async (status) => {
    const store = open();
    server.refuse = new Refusal("It may have been deleted.", status);
    type(store, "a");
    await quiet();
    expect([server.saves, store.getState().save, store.getState().saveMessage]).toEqual([
      1,
      "refused",
      "It may have been deleted.",
    ]);
    await quiet(RETRY_MS * 5);
    expect(server.saves).toBe(1);
    expect(drawer.kept?.document.notes).toBe("a");
    server.refuse = null;
    type(store, "ab");
    await quiet();
    expect(store.getState().save).toBe("saved");
  });

  it.each([0, 500, 503])("tries again when nobody answered or the server was busy (%i)", async (status) => {
    const store = open();
    server.refuse = new Refusal("Try again.", status);
    type(store, "a");
    await quiet();
    expect(store.getState().save).toBe("failed");
    server.refuse = null;
    await quiet(RETRY_MS);
    expect([store.getState().save, server.steps.at(-1)?.notes]).toEqual(["saved", "a"]);
  });

  it("holds a save that somebody else beat until the person has chosen", async () => {
    const store = open();
    server.steps.push(line("theirs"));
    server.head = 1;
    server.version = 2;
    type(store, "mine");
    await quiet();
    expect(store.getState().conflict).toEqual({ version: 2, theirs: line("theirs"), base: line("first") });
    type(store, "mine and more");
    await quiet(RETRY_MS * 2);
    expect(server.saves).toBe(1);
    store.settle(line("both"));
    await quiet();
    expect([server.steps.at(-1)?.notes, store.getState().save]).toEqual(["both", "saved"]);
  });

  it("takes its own save for its own when only the answer was lost", async () => {
    const store = open();
    type(store, "a");
    await server.save(1, line("a"));
    await quiet();
    expect([store.getState().conflict, store.getState().save, drawer.kept]).toEqual([null, "saved", null]);
  });

  it("goes on typing after its own save, of which only the answer was lost", async () => {
    const store = open();
    type(store, "a");
    await server.save(1, line("a")); // as if it had been ours
    server.holding = true;
    await quiet();
    type(store, "ab");
    server.release();
    await quiet(0);
    expect([store.getState().save, store.getState().opened.version]).toEqual(["typing", 2]);
    expect(store.getState().opened).toMatchObject({ can_undo: true, can_redo: false });
    await quiet();
    expect([server.steps.at(-1)?.notes, store.getState().save]).toEqual(["ab", "saved"]);
  });

  it("says who it was that changed it, from what both started from", async () => {
    const store = open();
    type(store, "a");
    await quiet();
    await server.save(2, line("theirs"));
    type(store, "ab");
    await quiet();
    expect(store.getState().conflict).toEqual({ version: 3, theirs: line("theirs"), base: line("a") });
    store.settle(line("both"));
    await quiet();
    await server.save(4, line("theirs again"));
    type(store, "mine");
    await quiet();
    expect(store.getState().conflict?.base?.notes).toBe("both");
  });

  it("is saved at once where everything of theirs is taken, and settles nothing without a conflict", async () => {
    const store = open();
    store.settle(line("nothing"));
    expect(note(store)).toBe("first");
    await server.save(1, line("theirs"));
    type(store, "mine");
    await quiet();
    store.settle(line("theirs"));
    expect(store.getState()).toMatchObject({ save: "saved", conflict: null, saveMessage: "" });
    expect([drawer.kept, store.getState().opened.can_undo, server.saves]).toEqual([null, true, 2]);
    await quiet(RETRY_MS);
    expect(server.saves).toBe(2);
  });

  it("does not try while a conflict stands, and keeps what is typed meanwhile as a draft", async () => {
    const store = open();
    await server.save(1, line("theirs"));
    type(store, "mine");
    await quiet();
    const { saves } = server;
    type(store, "mine and more");
    await quiet(RETRY_MS);
    await store.flush();
    expect([server.saves, store.getState().save, drawer.kept?.document.notes]).toEqual([
      saves,
      "conflict",
      "mine and more",
    ]);
  });

  it("sends what is typed before the server changes the line, and takes what it made", async () => {
    const store = open();
    type(store, "typed");
    const refused = await store.ask((version) => server.save(version, line("signed")));
    expect([refused, note(store), store.getState().save]).toEqual(["", "signed", "saved"]);
    expect(server.steps.map(({ notes }) => notes)).toEqual(["first", "typed", "signed"]);
  });

  it("keeps what is typed while the server changes the line", async () => {
    const store = open();
    server.holding = true;
    const asked = store.ask((version) => server.save(version, line("signed")));
    await quiet(0);
    type(store, "typed");
    server.release();
    expect(await asked).toBe("");
    expect(note(store)).toBe("typed");
    await quiet();
    expect(server.steps.at(-1)?.notes).toBe("typed");
  });

  it("asks nothing of a line that is not saved, and says why", async () => {
    const store = open();
    server.refuse = new Refusal("no", 422);
    type(store, "typed");
    const call = vi.fn();
    expect(await store.ask(call)).toBe("What was typed is not saved yet; settle that first.");
    expect(call).not.toHaveBeenCalled();
    server.refuse = null;
    const other = open();
    expect(await other.ask(() => Promise.reject(new Refusal("It is signed.", 422)))).toBe("It is signed.");
  });

  it("asks nothing of a line in conflict", async () => {
    const store = open();
    await server.save(1, line("theirs"));
    type(store, "mine");
    await quiet();
    const call = vi.fn();
    expect(await store.ask(call)).toContain("settle that first");
    expect(call).not.toHaveBeenCalled();
  });

  it("tells nobody who has stopped listening", () => {
    const store = open();
    const heard = vi.fn();
    const deaf = store.subscribe(heard);
    type(store, "a");
    deaf();
    type(store, "ab");
    expect(heard).toHaveBeenCalledTimes(1);
  });

  it("leaves alone with redo what cannot be saved", async () => {
    const store = open();
    type(store, "a");
    await quiet();
    store.undo();
    await quiet(0);
    server.refuse = new Refusal("no", 422);
    type(store, "too much");
    await quiet();
    store.redo();
    await quiet(0);
    expect([note(store), store.getState().save]).toEqual(["too much", "refused"]);
  });

  it("does not undo while what is typed cannot be sent", async () => {
    const store = open();
    server.refuse = new Refusal("Bendrel does not answer.", 0);
    type(store, "a");
    store.undo();
    await quiet(0);
    expect([note(store), store.getState().save, drawer.kept?.document.notes]).toEqual(["a", "failed", "a"]);
  });

  it("says that an undo went unanswered", async () => {
    const store = open();
    type(store, "a");
    await quiet();
    server.refuse = new Refusal("Bendrel does not answer.", 0);
    store.undo();
    await quiet(0);
    expect(store.getState()).toMatchObject({ save: "failed", saveMessage: "Bendrel does not answer." });
    expect(note(store)).toBe("a");
    // nothing of it is typed: there is nothing to try again
    const { saves } = server;
    await quiet(RETRY_MS * 2);
    expect(server.saves).toBe(saves);
  });

  it("says a refusal that names no version as what it is", async () => {
    const store = open();
    server.refuse = new Refusal("It stands still while it is restored.", 409);
    type(store, "a");
    await quiet();
    expect(store.getState()).toMatchObject({ conflict: null, save: "refused" });
  });
});
