import { Refusal, sentence } from "../api/client";
import type { OpenStripDown, SharedItem } from "../api/types";

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Two people's changes of one log, settled thing by thing: what only one of them changed is as they left it, what both
 * changed is as it stands here, and nothing that either added is lost.
 */
export function merged(
  base: readonly SharedItem[],
  mine: readonly SharedItem[],
  theirs: readonly SharedItem[],
): SharedItem[] {
  const before = new Map(base.map((item) => [item.id, item]));
  const here = new Map(mine.map((item) => [item.id, item]));
  const there = new Map(theirs.map((item) => [item.id, item]));
  const settled = theirs.flatMap((item) => {
    const was = before.get(item.id);
    const own = here.get(item.id);
    if (!own) return was && same(was, item) ? [] : [item];
    return [was && same(was, own) ? item : own];
  });
  const added = mine.filter((item) => !there.has(item.id) && !same(before.get(item.id), item));
  return [...settled, ...added];
}

export interface StripDownCalls {
  load: () => Promise<OpenStripDown>;
  save: (version: number, items: readonly SharedItem[]) => Promise<OpenStripDown>;
}

export interface StripDownState {
  items: readonly SharedItem[];
  /** As last kept; null until it has been read. */
  kept: OpenStripDown | null;
  problem: string;
}

const PAUSE_MS = 500;

/** A job's strip-down as it is typed: kept after a pause, settled with what others kept meanwhile. */
export class StripDownStore {
  private state: StripDownState = { items: [], kept: null, problem: "" };
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> | null = null;

  constructor(private readonly calls: StripDownCalls) {}

  readonly now = () => this.state;

  readonly listen = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Read what is kept; what is typed here and not kept yet stays. */
  async open(): Promise<void> {
    try {
      const found = await this.calls.load();
      const { kept, items } = this.state;
      this.put({
        kept: found,
        items: kept ? merged(kept.log.items, items, found.log.items) : found.log.items,
        problem: "",
      });
    } catch (error) {
      this.put({ ...this.state, problem: sentence(error) });
    }
  }

  change(items: readonly SharedItem[]): void {
    this.put({ ...this.state, items });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), PAUSE_MS);
  }

  /** Keep what has been typed; resolves when it is kept or refused. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    while (this.saving) await this.saving;
    if (!this.state.kept || same(this.state.items, this.state.kept.log.items)) return;
    this.saving = this.keep(this.state.kept, this.state.items, true);
    await this.saving;
    this.saving = null;
    if (this.state.problem === "" && !same(this.state.items, this.state.kept.log.items)) await this.flush();
  }

  private async keep(on: OpenStripDown, items: readonly SharedItem[], again: boolean): Promise<void> {
    try {
      const kept = await this.calls.save(on.version, items);
      this.put({ kept, items: merged(items, this.state.items, kept.log.items), problem: "" });
    } catch (error) {
      if (again && error instanceof Refusal && error.status === 409) {
        const theirs = await this.calls.load().catch(() => null);
        if (theirs) {
          const both = merged(on.log.items, this.state.items, theirs.log.items);
          this.put({ ...this.state, kept: theirs, items: both });
          return this.keep(theirs, both, false);
        }
      }
      this.put({ ...this.state, problem: `Not kept: ${sentence(error)}` });
    }
  }

  private put(state: StripDownState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}
