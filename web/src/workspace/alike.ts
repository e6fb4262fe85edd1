import type { Finding, Span } from "../api/types";
import { pieceName } from "../doc/pieceName";

/** What a finding is, in one word that never changes: its code and where it is. */
export const keyOf = (finding: Finding): string => {
  const { kind, span, row, end, item } = finding.where;
  return [finding.code, kind, span, row, end ?? null, item].join(" ");
};

/** What is said of several bends of one tube with one way out, and what is said of several pieces in the same words, is
 * one thing to settle; all else stands by itself, in the same order: a stop at one bend may be settled at another. */
export function alikeOf(findings: readonly Finding[]): Finding[][] {
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const { code, severity, where, title, message } = finding;
    const way = finding.fix?.label ?? "";
    const key =
      severity === "stop"
        ? keyOf(finding)
        : where.kind === "bend"
          ? [code, severity, where.span, way].join(" ")
          : [code, severity, title, message, way].join(" ");
    groups.set(key, [...(groups.get(key) ?? []), finding]);
  }
  return [...groups.values()];
}

/** Where the same holds, for the eye: "bends 1, 2, 4", or "tube 1, end B, and hose 2". */
export function placesOf(alike: readonly Finding[], spans: readonly Span[]): string {
  if (alike.every(({ where }) => where.kind === "bend"))
    return `bends ${alike.map(({ where }) => where.number).join(", ")}`;
  const places = alike.map(({ where }) =>
    [
      where.kind === "bend" ? `bend ${where.number} of ` : "",
      pieceName(spans, where.span),
      where.end ? `, end ${where.end}` : "",
    ].join(""),
  );
  const between = places.some((place) => place.includes(",")) ? "; " : ", ";
  const last = places.pop() ?? "";
  return places.length ? `${places.join(between)} and ${last}` : last;
}
