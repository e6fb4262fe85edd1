import { keep, kept } from "../api/kept";
import type { Copied, Line } from "../api/types";

const KEY = "bendrel.copied";

/** Keep a piece of a line, or it and all behind it, to be put in elsewhere: in this line or another. */
export function copyPieces(line: Line, from: number, to: number): void {
  const copied: Copied = { spans: line.spans.slice(from, to), joints: line.joints.slice(from, to - 1) };
  keep(KEY, JSON.stringify(copied));
}

/** What was copied last; null where nothing was, or it cannot be read. */
export function copiedPieces(): Copied | null {
  try {
    const copied = JSON.parse(kept(KEY) ?? "null") as Copied | null;
    return copied && Array.isArray(copied.spans) && copied.spans.length > 0 ? copied : null;
  } catch {
    return null;
  }
}

/** What was copied, in words. */
export const saidOf = ({ spans }: Copied): string =>
  spans.map((span) => (span.kind === "component" ? span.what : span.kind === "hose" ? "hose" : "tube")).join(", ");
