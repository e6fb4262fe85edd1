/**
 * Only the newest answer counts. An answer or a refusal that comes after a later one is passed over: an old
 * answer never stands as current once a newer request has been settled, refused or not.
 */
export class Newest {
  private asked = 0;
  private settled = 0;

  /** Ask; `told` hears of it unless something newer has been settled meanwhile. */
  ask<T>(request: Promise<T>, told: (answer: { ok: true; value: T } | { ok: false; error: unknown }) => void): void {
    const mine = ++this.asked;
    const settle = (answer: Parameters<typeof told>[0]) => {
      if (mine < this.settled) return;
      this.settled = mine;
      told(answer);
    };
    request.then(
      (value) => settle({ ok: true, value }),
      (error: unknown) => settle({ ok: false, error }),
    );
  }
}
