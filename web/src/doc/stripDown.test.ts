import { beforeEach, expect, test, vi } from "vitest";
import { Refusal } from "../api/client";
import type { OpenStripDown, SharedItem } from "../api/types";
import { merged } from "./stripDown";
import { Versioned } from "./versioned";

const item = (id: string, what = id): SharedItem => ({
  id,
  lines: [],
  kind: "bolt",
  what,
  wrench: "",
  count: 1,
  where: "",
  fate: "reuse",
  note: "",
  photo: "",
  refitted: false,
});

const words = (items: readonly SharedItem[]) => items.map((one) => one.what);

test("what only one of two changed is as they left it", () => {
  const base = [item("a"), item("b")];
  expect(words(merged(base, [item("a", "mine"), item("b")], [item("a"), item("b", "theirs")]))).toEqual([
    "mine",
    "theirs",
  ]);
});

test("what both added is there", () => {
  expect(words(merged([item("a")], [item("a"), item("x")], [item("a"), item("y")]))).toEqual(["a", "y", "x"]);
});

test("what one took out stays out, unless the other changed it meanwhile", () => {
  const base = [item("a"), item("b")];
  expect(words(merged(base, [item("b")], base))).toEqual(["b"]);
  expect(words(merged(base, [item("b")], [item("a", "changed"), item("b")]))).toEqual(["changed", "b"]);
  expect(words(merged(base, base, [item("b")]))).toEqual(["b"]);
  expect(words(merged(base, [item("a", "mine"), item("b")], [item("b")]))).toEqual(["b", "mine"]);
});

/** A server that keeps one log and refuses a stale write. */
class Server {
  version = 0;
  items: readonly SharedItem[] = [];
  away = false;
  open = (): OpenStripDown => ({
    job_id: "j",
    version: this.version,
    log: { items: [...this.items] },
    back: [],
    still_off: [],
    parts: [],
  });
  calls = {
    load: () => Promise.resolve(this.open()),
    save: (version: number, items: readonly SharedItem[]) => {
      if (this.away) return Promise.reject(new Refusal("Bendrel does not answer.", 0));
      if (version !== this.version) return Promise.reject(new Refusal("changed elsewhere", 409, this.version));
      this.version += 1;
      this.items = items;
      return Promise.resolve(this.open());
    },
  };
}

type Saving = (version: number, items: readonly SharedItem[]) => Promise<OpenStripDown>;

/** The store of a strip-down on a server, with a way of saving of its own where one is given. */
const storeOn = (server: Server, save: Saving = server.calls.save) =>
  new Versioned(
    {
      load: server.calls.load,
      save,
      valueOf: (kept: OpenStripDown): readonly SharedItem[] => kept.log.items,
      settle: merged,
    },
    [],
    500,
  );

beforeEach(() => {
  vi.useFakeTimers();
});

test("typing is kept once, after a pause", async () => {
  const server = new Server();
  const store = storeOn(server);
  await store.open();
  for (const what of ["c", "co", "cover"]) store.change([item("a", what)]);
  await vi.advanceTimersByTimeAsync(600);
  expect(server.version).toBe(1);
  expect(words(server.items)).toEqual(["cover"]);
});

test("two people at one job lose nothing", async () => {
  const server = new Server();
  const [one, two] = [storeOn(server), storeOn(server)];
  await one.open();
  await two.open();
  one.change([item("w", "wheel")]);
  await one.flush();
  two.change([item("c", "cover")]);
  await two.flush();
  expect(words(server.items).sort()).toEqual(["cover", "wheel"]);
  expect(words(two.now().value).sort()).toEqual(["cover", "wheel"]);
});

test("what could not be kept stays on the screen, is said, and is kept with the next change", async () => {
  const server = new Server();
  const store = storeOn(server);
  await store.open();
  server.away = true;
  store.change([item("a")]);
  await store.flush();
  expect(store.now().problem).toContain("Not kept");
  expect(words(store.now().value)).toEqual(["a"]);
  server.away = false;
  store.change([item("a"), item("b")]);
  await store.flush();
  expect(store.now().problem).toBe("");
  expect(words(server.items)).toEqual(["a", "b"]);
});

test("what is typed while an answer is under way is kept after it", async () => {
  const server = new Server();
  let release: () => void = () => undefined;
  const slow = new Promise<void>((done) => {
    release = done;
  });
  let first = true;
  const store = storeOn(server, async (version, items) => {
    if (first) {
      first = false;
      await slow;
    }
    return server.calls.save(version, items);
  });
  await store.open();
  store.change([item("a")]);
  const kept = store.flush();
  store.change([item("a"), item("b")]);
  release();
  await kept;
  expect(words(server.items)).toEqual(["a", "b"]);
});

test("what is refused is put back where that is asked for, and said", async () => {
  const calls = {
    load: () => Promise.resolve({ version: 4, text: "theirs" }),
    save: () => Promise.reject(new Refusal("This part is finished.", 422)),
    valueOf: (kept: { text: string }) => kept.text,
    settle: (_base: string, _mine: string, theirs: string) => theirs,
  };
  const backing = new Versioned({ ...calls, putsBack: true }, "", 0);
  await backing.open();
  backing.change("mine");
  await backing.flush();
  expect(backing.now()).toMatchObject({ value: "theirs", problem: "This part is finished." });
  const standing = new Versioned(calls, "", 0);
  await standing.open();
  standing.change("mine");
  await standing.flush();
  expect(standing.now()).toMatchObject({ value: "mine", problem: "Not kept: This part is finished." });
});
