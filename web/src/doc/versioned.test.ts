import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Refusal } from "../api/client";
import type { Shelf } from "./draft";
import type { Left } from "./versioned";
import { Versioned } from "./versioned";

interface Kept {
  version: number;
  words: readonly string[];
}
type Words = readonly string[];

/** A server that keeps some words and refuses a stale write; its answers can be held back. */
class Server {
  version = 0;
  words: Words = [];
  refuse: Refusal | null = null;
  saves = 0;
  private held: (() => void)[] = [];
  holding = false;
  now = (): Kept => ({ version: this.version, words: this.words });
  load = () => (this.refuse?.status === 0 ? Promise.reject(this.refuse) : Promise.resolve(this.now()));
  save = async (version: number, words: Words): Promise<Kept> => {
    this.saves += 1;
    if (this.refuse) throw this.refuse;
    if (version !== this.version) throw new Refusal("changed elsewhere", 409, this.version);
    this.version += 1;
    this.words = words;
    const kept = this.now();
    if (this.holding) await new Promise<void>((go) => this.held.push(go));
    return kept;
  };
  release = () => {
    this.holding = false;
    for (const go of this.held.splice(0)) go();
  };
}

class Drawer implements Shelf<Left<Words>> {
  left: Left<Words> | null = null;
  keep = (left: Left<Words>) => void (this.left = left);
  drop = () => void (this.left = null);
  read = () => this.left;
}

const PAUSE_MS = 500;
/** Both people's words: what one took out stays out. */
const settle = (base: Words, mine: Words, theirs: Words): Words => [
  ...theirs.filter((word) => !base.includes(word) || mine.includes(word)),
  ...mine.filter((word) => !base.includes(word) && !theirs.includes(word)),
];

let server: Server;
let drawer: Drawer;
const storeOn = (more: { putsBack?: boolean; settle?: typeof settle } = {}, shelf = drawer) =>
  new Versioned<Kept, Words>(
    { load: server.load, save: server.save, valueOf: (kept) => kept.words, settle, shelf: () => shelf, ...more },
    [],
    PAUSE_MS,
  );
const quiet = (ms = PAUSE_MS) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  drawer = new Drawer();
});
afterEach(() => vi.useRealTimers());

test("typing is shown at once and kept once, after a pause", async () => {
  const store = storeOn();
  await store.open();
  const heard: Words[] = [];
  const deaf = store.listen(() => heard.push(store.now().value));
  for (const word of ["c", "co", "cover"]) store.change([word]);
  expect(heard).toEqual([["c"], ["co"], ["cover"]]);
  await quiet(PAUSE_MS - 1);
  expect(server.saves).toBe(0);
  await quiet(1);
  expect([server.version, server.words]).toEqual([1, ["cover"]]);
  deaf();
  store.change([]);
  expect(heard.at(-1)).toEqual(["cover"]);
});

test("what is not read yet is not kept, and why it is not there is said", async () => {
  const store = storeOn();
  server.refuse = new Refusal("Bendrel does not answer.", 0);
  await store.open();
  expect(store.now()).toMatchObject({ kept: null, problem: "Bendrel does not answer." });
  store.change(["a"]);
  await store.flush();
  expect([server.saves, drawer.left]).toEqual([0, null]);
});

test("what is typed before anything was read stands beside it, and is kept", async () => {
  server.words = ["theirs"];
  const store = storeOn();
  store.change(["mine"]);
  await store.open();
  expect([store.now().value, server.words]).toEqual([
    ["theirs", "mine"],
    ["theirs", "mine"],
  ]);
});

test("nothing is sent where nothing changed", async () => {
  const store = storeOn();
  await store.open();
  store.change([]);
  await store.flush();
  expect(server.saves).toBe(0);
});

test("two people at one job lose nothing", async () => {
  const [one, two] = [storeOn(), storeOn({}, new Drawer())];
  await one.open();
  await two.open();
  one.change(["wheel"]);
  await one.flush();
  two.change(["cover"]);
  await two.flush();
  expect([...server.words].sort()).toEqual(["cover", "wheel"]);
  expect(two.now()).toMatchObject({ value: server.words, problem: "" });
});

test("what could not be kept stays on the screen, is said, and is kept with the next change", async () => {
  const store = storeOn();
  await store.open();
  server.refuse = new Refusal("Bendrel does not answer.", 0);
  store.change(["a"]);
  await store.flush();
  expect(store.now()).toMatchObject({ value: ["a"], problem: "Not kept: Bendrel does not answer." });
  server.refuse = null;
  store.change(["a", "b"]);
  await store.flush();
  expect([store.now().problem, server.words]).toEqual(["", ["a", "b"]]);
});

test("what is typed while an answer is under way is kept after it, once it is there", async () => {
  const store = storeOn();
  await store.open();
  server.holding = true;
  store.change(["a"]);
  const kept = store.flush();
  store.change(["a", "b"]);
  const again = store.flush();
  await quiet(0);
  expect(server.saves).toBe(1);
  server.release();
  await Promise.all([kept, again]);
  expect([server.words, server.saves, store.now().value]).toEqual([["a", "b"], 2, ["a", "b"]]);
});

test("what is refused is put back where that is asked for, and said", async () => {
  server.words = ["theirs"];
  const backing = storeOn({ putsBack: true, settle: (_base, _mine, theirs) => theirs });
  await backing.open();
  server.refuse = new Refusal("This part is finished.", 422);
  backing.change(["mine"]);
  await backing.flush();
  expect(backing.now()).toMatchObject({ value: ["theirs"], problem: "This part is finished." });
  expect([server.saves, drawer.left]).toEqual([1, null]);
  server.refuse = null;
  const standing = storeOn();
  await standing.open();
  server.refuse = new Refusal("This part is finished.", 422);
  standing.change(["mine"]);
  await standing.flush();
  expect(standing.now()).toMatchObject({ value: ["mine"], problem: "Not kept: This part is finished." });
  expect([server.saves, drawer.left?.value]).toEqual([2, ["mine"]]);
});

test("read again, what is typed and not kept yet stays beside what others kept", async () => {
  const store = storeOn();
  await store.open();
  store.change(["mine"]);
  server.words = ["theirs"];
  server.version = 4;
  await store.open();
  expect(store.now()).toMatchObject({ value: ["theirs", "mine"], kept: { version: 4 } });
});

test("a page that is left in the middle of typing goes on with it", async () => {
  const left = storeOn();
  await left.open();
  left.change(["mine"]);
  const again = storeOn();
  await again.open();
  await quiet(0);
  expect([again.now().value, server.words, drawer.left]).toEqual([["mine"], ["mine"], null]);
});

test("a page that is left while a save is under way loses nothing that came after it", async () => {
  const left = storeOn();
  await left.open();
  server.holding = true;
  left.change(["a"]);
  void left.flush();
  await quiet(0);
  left.change(["a", "b"]);
  // the page is gone: the first save has arrived, its answer has not
  server.holding = false;
  const again = storeOn();
  await again.open();
  expect([again.now().value, server.words, drawer.left]).toEqual([["a", "b"], ["a", "b"], null]);
});

test("what was on its way as a page was left may arrive after it was opened again", async () => {
  const left = storeOn();
  await left.open();
  server.holding = true;
  left.change(["a"]);
  void left.flush();
  left.change(["a", "b"]);
  // the page is gone, and its save comes late: only after the new page has read what is kept
  const [version, words] = [server.version, server.words];
  server.version = 0;
  server.words = [];
  server.holding = false;
  const again = storeOn({ settle: (_base, _mine, theirs) => theirs });
  const opened = again.open();
  server.version = version;
  server.words = words;
  await opened;
  expect([again.now().value, server.words]).toEqual([
    ["a", "b"],
    ["a", "b"],
  ]);
});

test("what is typed while a late save of the page before arrives is not lost", async () => {
  const left = storeOn();
  await left.open();
  server.holding = true;
  left.change(["a"]);
  void left.flush();
  await quiet(0);
  // the page is gone, and its only save comes late: after the new page has read what is kept
  server.version = 0;
  server.words = [];
  server.holding = false;
  const again = storeOn({ settle: (_base, _mine, theirs) => theirs });
  const opened = again.open();
  server.version = 1;
  server.words = ["a"];
  while (again.now().kept === null) await Promise.resolve();
  again.change(["a", "b"]);
  await opened;
  await quiet();
  expect([again.now().value, server.words]).toEqual([
    ["a", "b"],
    ["a", "b"],
  ]);
});

test("the last tick before a page is left stays, also where only the save before it has arrived", async () => {
  const left = storeOn();
  await left.open();
  server.refuse = new Refusal("Bendrel does not answer.", 0);
  left.change(["a"]);
  await left.flush();
  left.change(["a", "b"]);
  await left.flush();
  // neither was answered, and the first has arrived
  server.refuse = null;
  server.version = 1;
  server.words = ["a"];
  const again = storeOn({ settle: (_base, _mine, theirs) => theirs });
  await again.open();
  expect([again.now().value, server.words]).toEqual([
    ["a", "b"],
    ["a", "b"],
  ]);
});

test("a page that was left long ago is settled with what others kept since", async () => {
  const left = storeOn();
  await left.open();
  left.change(["mine"]);
  server.words = ["theirs"];
  server.version = 3;
  const again = storeOn();
  await again.open();
  expect(again.now().value).toEqual(["theirs", "mine"]);
  expect(server.words).toEqual(["theirs", "mine"]);
});
