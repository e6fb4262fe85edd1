import { Refusal, sentence } from "../api/client";
import type { Shelf } from "./draft";

/** What was typed and not yet kept: on which version, over what, and all that was on its way then. */
export interface Left<Value> {
  version: number;
  value: Value;
  base: Value;
  underWay: readonly Value[];
}

export interface Calls<Kept extends { version: number }, Value> {
  /** Read what is kept. */
  load: () => Promise<Kept>;
  /** Keep a value on the version that it was changed from. */
  save: (version: number, value: Value) => Promise<Kept>;
  valueOf: (kept: Kept) => Value;
  /** What two people's changes come to. */
  settle: (base: Value, mine: Value, theirs: Value) => Value;
  /** What is refused is put back as it is kept, instead of standing there until it is put right. */
  putsBack?: boolean;
  /** Where what is typed lies until it is kept, so that a page may be left at any moment. */
  shelf: (kept: Kept) => Shelf<Left<Value>>;
}

export interface VersionedState<Kept, Value> {
  /** As typed. */
  value: Value;
  /** As last kept; null until it has been read. */
  kept: Kept | null;
  problem: string;
}

/** So many of what was sent and not answered are remembered: one of them may have arrived. */
const REMEMBERED = 8;
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What several may edit: shown at once as it is typed, kept after a pause on the version that it was read at, and
 * settled with what others kept meanwhile. */
export class Versioned<Kept extends { version: number }, Value> {
  private state: VersionedState<Kept, Value>;
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> | null = null;
  /** What is on its way, or went and was never answered: found there again, it is our own. */
  private underWay: readonly Value[] = [];

  constructor(
    private readonly calls: Calls<Kept, Value>,
    private readonly blank: Value,
    private readonly pauseMs: number,
  ) {
    this.state = { value: blank, kept: null, problem: "" };
  }

  readonly now = () => this.state;

  readonly listen = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Read what is kept; what is typed here and not kept yet stays. */
  readonly open = async (load = this.calls.load): Promise<void> => {
    try {
      const found = await load();
      const { kept } = this.state;
      const theirs = this.calls.valueOf(found);
      const mine = kept ? this.beside(this.calls.valueOf(kept), theirs) : this.typedEarly(this.putBack(found));
      this.put({ kept: found, value: mine, problem: "" });
      this.shelve();
      if (!kept) await this.flush();
    } catch (error) {
      this.put({ ...this.state, problem: sentence(error) });
    }
  };

  readonly change = (value: Value): void => {
    this.put({ ...this.state, value });
    this.shelve();
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.pauseMs);
  };

  /** Keep what has been typed; resolves when it is kept or refused. */
  readonly flush = async (): Promise<void> => {
    clearTimeout(this.timer);
    while (this.saving) await this.saving;
    if (this.clean() || !this.state.kept) return;
    this.saving = this.keep(this.state.kept, this.state.value, true);
    await this.saving;
    this.saving = null;
    if (this.state.problem === "" && !this.clean()) await this.flush();
  };

  /** What an earlier page left: on the version that it was typed on, or where what it had sent has arrived, it goes on;
   * otherwise it is settled with what others kept. */
  private putBack(found: Kept): Value {
    const theirs = this.calls.valueOf(found);
    const left = this.calls.shelf(found).read();
    if (!left) return theirs;
    // a shelf of an older version may lie there
    this.underWay = (left as Partial<Left<Value>>).underWay ?? [];
    if (left.version === found.version || this.isOurs(theirs)) return left.value;
    return this.calls.settle(left.base, left.value, theirs);
  }

  /** What was typed before anything was read stands beside what was read. */
  private typedEarly(found: Value): Value {
    const { value } = this.state;
    return value === this.blank ? found : this.calls.settle(this.blank, value, found);
  }

  private shelve(): void {
    const { kept, value } = this.state;
    if (!kept) return;
    const shelf = this.calls.shelf(kept);
    if (this.clean()) shelf.drop();
    else shelf.keep({ version: kept.version, value, base: this.calls.valueOf(kept), underWay: this.underWay });
  }

  /** What stands here beside what is found kept: where that is what went from here, nobody else changed anything. */
  private beside(base: Value, found: Value): Value {
    return this.isOurs(found) ? this.state.value : this.calls.settle(base, this.state.value, found);
  }

  private isOurs(found: Value): boolean {
    return this.underWay.some((sent) => same(sent, found));
  }

  private clean(): boolean {
    const { kept, value } = this.state;
    return !kept || same(value, this.calls.valueOf(kept));
  }

  private async keep(on: Kept, value: Value, again: boolean): Promise<void> {
    this.underWay = [...this.underWay, value].slice(-REMEMBERED);
    this.shelve();
    try {
      const kept = await this.calls.save(on.version, value);
      const untouched = this.state.value === value;
      this.underWay = [];
      this.put({ kept, value: untouched ? this.calls.valueOf(kept) : this.state.value, problem: "" });
      this.shelve();
    } catch (error) {
      const status = error instanceof Refusal ? error.status : 0;
      if (again && (status === 409 || (status === 422 && this.calls.putsBack))) {
        const theirs = await this.calls.load().catch(() => null);
        if (theirs) {
          const both = this.beside(this.calls.valueOf(on), this.calls.valueOf(theirs));
          // what went on an older version can arrive no more
          this.underWay = [];
          this.put({ kept: theirs, value: both, problem: this.calls.putsBack ? sentence(error) : "" });
          this.shelve();
          return this.clean() ? undefined : this.keep(theirs, both, false);
        }
      }
      this.put({ ...this.state, problem: `Not kept: ${sentence(error)}` });
    }
  }

  private put(state: VersionedState<Kept, Value>): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}
