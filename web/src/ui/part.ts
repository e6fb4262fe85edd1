/** A piece of code that is fetched when it is first wanted, or before: what it is, why it did not come, and who waits.
 * In React it is read by `useSyncExternalStore`, which looks again once it listens: what comes between the first
 * drawing and that is drawn all the same. */
export class Part<T> {
  private has: { made: T | null; failed: Error | null } = { made: null, failed: null };
  private readonly waiting = new Set<() => void>();

  constructor(private readonly load: () => Promise<{ default: T }>) {}

  readonly now = () => this.has;

  readonly fetch = async (): Promise<void> => {
    this.tell({ made: (await this.load()).default, failed: null });
  };

  /** Hear of it when it comes, or fails to; it is asked for where it is not there yet. */
  readonly wait = (heard: () => void): (() => void) => {
    this.waiting.add(heard);
    if (!this.has.made) this.fetch().catch((failed: unknown) => this.tell({ made: null, failed: asError(failed) }));
    return () => {
      this.waiting.delete(heard);
      // whoever comes back to what failed asks anew
      if (this.has.failed) this.has = { made: null, failed: null };
    };
  };

  private tell(has: { made: T | null; failed: Error | null }) {
    this.has = has;
    for (const heard of this.waiting) heard();
  }
}

const asError = (failed: unknown) => (failed instanceof Error ? failed : new Error(String(failed)));
