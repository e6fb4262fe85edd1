import type { Change, Line } from "../api/types";

/** Set values in a document by JSON pointer, copying only what lies on the way. */
export function applyChanges(line: Line, changes: readonly Change[]): Line {
  return changes.reduce<Line>(
    (value, change) => set(value, change.path.split("/").slice(1), change.value) as Line,
    line,
  );
}

function set(value: unknown, path: string[], next: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return next;
  if (Array.isArray(value) && step === String(value.length))
    return [...(value as unknown[]), set(undefined, rest, next)];
  if (Array.isArray(value)) return value.map((item, k) => (String(k) === step ? set(item, rest, next) : item));
  const record = (value ?? {}) as Record<string, unknown>;
  return { ...record, [step]: set(record[step], rest, next) };
}
