import type { Change, Line } from "../api/types";
import { applyChanges, idOf } from "./pointer";

export type Side = "mine" | "theirs";

export interface Difference {
  /** JSON pointer of the smallest thing that a person changes as one. */
  pointer: string;
  path: string;
  mine: string;
  theirs: string;
  /** Who changed it since both were the same; both where it cannot be told. */
  changed: Side | "both";
}

/** Where two versions of a line say different things, in the words of the screen. */
export function differences(mine: Line, theirs: Line, base: Line | null = null): Difference[] {
  return differ(mine, theirs, base, "", "");
}

/** The saved version with the person's own choice for every field that differs. */
export function merged(
  mine: Line,
  theirs: Line,
  found: readonly Difference[],
  chosen: ReadonlyMap<string, Side>,
): Line {
  const changes: Change[] = found
    .filter((item) => chosen.get(item.pointer) === "mine")
    .map((item) => ({ path: item.pointer, value: valueAt(mine, item.pointer) as Change["value"] }));
  return applyChanges(theirs, changes);
}

function differ(a: unknown, b: unknown, base: unknown, path: string, pointer: string): Difference[] {
  if (same(a, b)) return [];
  if (isRecord(a) && isRecord(b) && !whole(a, b)) {
    const names = new Set([...Object.keys(a), ...Object.keys(b)]);
    return [...names].flatMap((name) => {
      const step = Array.isArray(a) ? (idOf(a[name]) ?? name) : name;
      const was = Array.isArray(a) ? entry(base, step) : isRecord(base) ? base[name] : undefined;
      return differ(a[name], b[name], was, spoken(path, name), `${pointer}/${step}`);
    });
  }
  const changed =
    base === undefined || base === null ? "both" : same(base, b) ? "mine" : same(base, a) ? "theirs" : "both";
  return [{ pointer, path: path || "line", mine: say(a), theirs: say(b), changed }];
}

/** Things that are chosen as one: a reading with its unit, lists of different length, other ways of entry. */
function whole(a: Record<string, unknown>, b: Record<string, unknown>): boolean {
  if (Array.isArray(a) && Array.isArray(b))
    return a.length !== b.length || a.some((item, k) => idOf(item) !== idOf(b[k]));
  return "text" in a || "text" in b || a["kind"] !== b["kind"];
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === "object" && value !== null;
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

function valueAt(value: unknown, pointer: string): unknown {
  return pointer
    .split("/")
    .slice(1)
    .reduce((at: unknown, step) => entry(at, step), value);
}

/** One entry of a list by its id or place, or one field. */
function entry(value: unknown, step: string): unknown {
  if (Array.isArray(value)) return (value as unknown[]).find((item) => idOf(item) === step) ?? value[Number(step)];
  return isRecord(value) ? value[step] : undefined;
}

const SILENT = new Set(["spans", "id", "readings", "rows", "items"]);
const LISTS = new Set(["row", "damage", "fixtures", "wet", "removed", "open items", "bought"]);

function spoken(path: string, name: string): string {
  if (/^\d+$/.test(name)) return LISTS.has(path.split(" › ").at(-1) ?? path) ? `${path} ${Number(name) + 1}` : path;
  if (name === "rows") return "row";
  if (name === "items") return "removed";
  if (SILENT.has(name) || name === "condition" || name === "removal") return path;
  return path ? `${path} ${name.replaceAll("_", " ")}` : name.replaceAll("_", " ");
}

function say(value: unknown): string {
  if (value === null || value === undefined || value === "") return "blank";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value))
    return value.every((item) => typeof item === "string")
      ? value.join(", ") || "none"
      : `${value.length} ${value.length === 1 ? "row" : "rows"}`;
  if (isRecord(value))
    return typeof value["text"] === "string"
      ? `“${value["text"]}”`
      : typeof value["choice"] === "string"
        ? value["choice"]
        : `read as ${typeof value["kind"] === "string" ? value["kind"] : "something else"}`;
  return typeof value === "string" ? `“${value}”` : JSON.stringify(value);
}
