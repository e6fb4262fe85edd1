import type { JobCircuits } from "../../../api/types";

export type DrawnLine = JobCircuits["lines"][number];

export const STEP = 74;
export const ROW = 96;
const LETTER = 7;
const LONGEST = 24;

/** What a port is called, short enough for the paper. */
export const shortly = (label: string): string =>
  label.length > LONGEST ? `${label.slice(0, LONGEST - 1).trimEnd()}…` : label;

export interface LaidSpan {
  span: string;
  what: string;
  x: number;
  /** Another line may hang on it. */
  branched: boolean;
}

/** One line on the paper: from its left end to its right end, spans between; turned where its end B is on the left. */
export interface LaidLine {
  line: DrawnLine;
  y: number;
  left: number;
  right: number;
  turned: boolean;
  spans: LaidSpan[];
}

/** A line down from where another line's port stands. */
export interface Drop {
  key: string;
  x: number;
  from: number;
  to: number;
  /** Where it goes on along the lower line. */
  toX: number;
}

export interface Paper {
  lines: LaidLine[];
  drops: Drop[];
  width: number;
  height: number;
}

/** Lay the lines of one circuit out: those that stand on no other first, each branch under the place it stands on. */
export function laidOut(group: readonly string[], all: readonly DrawnLine[]): Paper {
  const mine = group.flatMap((id) => all.find((line) => line.id === id) ?? []);
  const laid = new Map<string, LaidLine>();
  const places = new Map<string, { x: number; y: number }>();
  const drops: Drop[] = [];
  let row = 0;

  const put = (line: DrawnLine, left: number, turned: boolean) => {
    const y = 44 + row * ROW;
    row += 1;
    const order = turned ? [...line.spans].reverse() : line.spans;
    const spans = order.map((span, k) => ({
      span: span.span,
      what: span.what,
      x: left + STEP * (k + 0.5) + 24,
      branched: span.branches.length > 0,
    }));
    const right = left + STEP * order.length + 48;
    laid.set(line.id, { line, y, left, right, turned, spans });
    for (const span of spans) places.set(`${line.id}:${span.span}`, { x: span.x, y });
    places.set(`${line.id}:A`, { x: turned ? right : left, y });
    places.set(`${line.id}:B`, { x: turned ? left : right, y });
  };

  const margin =
    24 + LETTER * Math.max(8, ...mine.map((line) => shortly(line.on_a ? line.label_b : line.label_a).length));
  const waiting = [...mine];
  while (waiting.length > 0) {
    const next =
      waiting.find((line) => (line.on_a ? places.has(line.on_a) : line.on_b ? places.has(line.on_b) : true)) ??
      waiting[0];
    if (!next) break;
    waiting.splice(waiting.indexOf(next), 1);
    const byA = next.on_a ? places.get(next.on_a) : undefined;
    const byB = next.on_b ? places.get(next.on_b) : undefined;
    const start = byA ?? byB;
    put(next, start ? start.x : margin, byA === undefined && byB !== undefined);
    const here = laid.get(next.id);
    if (!here) continue;
    if (start) drops.push({ key: `${next.id} first`, x: start.x, from: start.y, to: here.y, toX: here.left });
    if (byA && byB) drops.push({ key: `${next.id} last`, x: byB.x, from: byB.y, to: here.y, toX: here.right });
  }
  const lines = [...laid.values()];
  return {
    lines,
    drops,
    width: Math.max(...lines.map((one) => one.right), ...drops.map((one) => one.x), 300) + LETTER * LONGEST + 24,
    height: 44 + (row - 1) * ROW + 52,
  };
}
