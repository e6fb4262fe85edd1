import type { Span } from "../api/types";

const wordOf = (span: Span): string => (span.kind === "component" ? span.what : span.kind === "hose" ? "hose" : "tube");

/** What a piece is called on the line: its kind, with its number where there are several. */
export function pieceName(spans: readonly Span[], id: string): string {
  const own = spans.find((span) => span.id === id);
  if (!own) return "the line";
  const old = own.kind === "rigid" && own.state === "stays" ? "old " : "";
  const alike = spans.filter((span) => wordOf(span) === wordOf(own));
  return old + wordOf(own) + (alike.length > 1 ? ` ${alike.indexOf(own) + 1}` : "");
}
