import { api, sentence, take } from "../api/client";
import type { ChainEdit, ComponentSpan, HoseSpan, Line, MendOrder, Span, Unit } from "../api/types";
import { typed } from "./rows";

/** Set values of one span that is no tube. */
export function setPiece<Piece extends HoseSpan | ComponentSpan>(line: Line, id: string, change: Partial<Piece>): Line {
  return { ...line, spans: line.spans.map((span) => (span.id === id ? ({ ...span, ...change } as Span) : span)) };
}

export const blankHose = (hose: string, unit: Unit): HoseSpan => ({
  id: "",
  kind: "hose",
  hose,
  length: typed("", unit),
  joined: "clamps",
  clamp: null,
  clamps_each: 2,
  on_a: typed("", unit),
  on_b: typed("", unit),
  plain_a: false,
  plain_b: false,
  rubs: false,
  sleeved: false,
  shape: null,
});

export const blankComponent = (unit: Unit): ComponentSpan => ({
  id: "",
  kind: "component",
  what: "filter",
  points: "not marked",
  source_port: "not known",
  age: "new",
  bore: typed("", unit),
  land: typed("", unit),
  note: "",
  length: typed("", unit),
  turn: { text: "", exact_deg: null },
  on_a: typed("", unit),
  on_b: typed("", unit),
  rated: "",
  holds: "",
  loses: "",
  service: "",
});

type Order = Partial<ChainEdit> & Pick<ChainEdit, "kind" | "span">;
interface Store {
  document: Line;
  edit: (change: (line: Line) => Line) => void;
}

/** Ask for one edit of the chain and take it; what was typed meanwhile is kept by asking once more. */
export const restructure = (store: Store, order: Order): Promise<Rewritten> =>
  rewrite(store, (document) =>
    take(api.POST("/api/chain", { body: { document, edit: { side: "B" as const, at: "", new: null, ...order } } })),
  );

/** Rewrite the line into the chain that mends it. */
export const mend = (store: Store, order: MendOrder, method: string, reason: string): Promise<Rewritten> =>
  rewrite(store, (document) => take(api.POST("/api/mend/decide", { body: { document, order, method, reason } })));

type Rewritten = { span: string; problem: "" } | { span: null; problem: string };

async function rewrite(
  store: Store,
  ask: (document: Line) => Promise<{ document: Line; span: string }>,
): Promise<Rewritten> {
  let from = store.document;
  try {
    for (;;) {
      const made = await ask(from);
      let now = from;
      store.edit((was) => {
        now = was;
        return was === from ? made.document : was;
      });
      if (now === from) return { span: made.span, problem: "" };
      from = now;
    }
  } catch (error) {
    return { span: null, problem: sentence(error) };
  }
}
