import type { Line, Plan } from "../api/types";

/** What stands in a field, by a problem's path through the document: names of fields and ids of rows; null where there is no such field. */
export function textAt(document: Line, path: string): string | null {
  let at: unknown = document;
  for (const step of path.split("/").slice(1)) {
    if (Array.isArray(at)) at = at.find((one: { id?: string }) => one.id === step);
    else at = (at as Record<string, unknown> | null | undefined)?.[step];
  }
  const text: unknown = typeof at === "string" ? at : (at as { text?: unknown } | null | undefined)?.text;
  return typeof text === "string" ? text : null;
}

/** The plan of an earlier document without its word on fields that were blank then and have something in them now. */
export function withoutFilled(plan: Plan | null, planned: Line | null, now: Line): Plan | null {
  if (!plan || !planned || planned === now) return plan;
  const filled = (path: string) => textAt(planned, path)?.trim() === "" && (textAt(now, path) ?? "").trim() !== "";
  const left = plan.problems.filter((problem) => !filled(problem.path));
  return left.length < plan.problems.length ? { ...plan, problems: left } : plan;
}
