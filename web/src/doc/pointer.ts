import type { Change, Line } from "../api/types";

/** Set values in a document by JSON pointer, copying only what lies on the way. What has an id is found by it. */
export function applyChanges(line: Line, changes: readonly Change[]): Line {
  return changes.reduce<Line>((value, change) => set(value, stepsOf(line, change.path), change.value) as Line, line);
}

/** A joint has no id: it is named by the span before it. */
function stepsOf(line: Line, path: string): string[] {
  const steps = path.split("/").slice(1);
  const at = steps[0] === "joints" ? line.spans.findIndex((span) => span.id === steps[1]) : -1;
  return at < 0 ? steps : steps.map((step, k) => (k === 1 ? String(at) : step));
}

function set(value: unknown, path: string[], next: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return next;
  if (Array.isArray(value)) {
    const items = value as unknown[];
    const named = items.findIndex((item) => idOf(item) === step);
    const at = named >= 0 ? named : Number(step);
    if (at === items.length) return [...items, set(undefined, rest, next)];
    return items.map((item, k) => (k === at ? set(item, rest, next) : item));
  }
  const record = (value ?? {}) as Record<string, unknown>;
  return { ...record, [step]: set(record[step], rest, next) };
}

/** The id that an entry of a list is addressed by, where it has one. */
export const idOf = (item: unknown): string | undefined =>
  typeof item === "object" && item !== null && "id" in item && typeof item.id === "string" ? item.id : undefined;
