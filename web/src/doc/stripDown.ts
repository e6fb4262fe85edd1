import type { SharedItem } from "../api/types";

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
