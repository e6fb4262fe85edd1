import { api, Refusal, sentence, take } from "../api/client";
import type { ChainEdit, ComponentSpan, HoseSpan, LetInOrder, Looked, Line, MendOrder } from "../api/types";

/** Set values of one span that is no tube. */
export function setPiece<Piece extends HoseSpan | ComponentSpan>(line: Line, id: string, change: Partial<Piece>): Line {
  return { ...line, spans: line.spans.map((span) => (span.id === id ? { ...span, ...change } : span)) };
}

type Order = Partial<ChainEdit> & Pick<ChainEdit, "kind" | "span">;
interface Store {
  document: Line;
  edit: (change: (line: Line) => Line) => void;
  flush: () => Promise<void>;
}

/** Ask for one edit of the chain and take it; what was typed meanwhile is kept by asking once more. */
export const restructure = (store: Store, order: Order): Promise<Rewritten> =>
  rewrite(store, (document) =>
    take(
      api.POST("/api/chain", {
        body: {
          document,
          edit: {
            side: "B" as const,
            at: "",
            put: "",
            union: "",
            material: "",
            size: "",
            fitting: "",
            reduce: null,
            copied: null,
            ...order,
          },
        },
      }),
    ),
  );

/** Rewrite the line into the chain that mends it. */
export const mend = (store: Store, order: MendOrder, method: string, reason: string): Promise<Rewritten> =>
  rewrite(store, (document) => take(api.POST("/api/mend/decide", { body: { document, order, method, reason } })));

/** Let a component into a tube. */
export const letIn = (store: Store, order: LetInOrder): Promise<Rewritten> =>
  rewrite(store, async (document) => {
    const made = await take(api.POST("/api/let-in", { body: { document, order } }));
    if (!made.document) throw new Refusal(made.place.reasons[0]?.text ?? "It is refused here.", 422);
    return { document: made.document, span: made.span };
  });

type Rewritten = { span: string; problem: "" } | { span: null; problem: string };

async function rewrite(
  store: Store,
  ask: (document: Line) => Promise<{ document: Line; span: string }>,
): Promise<Rewritten> {
  // each rewriting is a step of its own to undo: what was typed before it is saved first, and it at once
  await store.flush();
  let from = store.document;
  store.edit((was) => {
    from = was;
    return was;
  });
  try {
    for (;;) {
      const made = await ask(from);
      let now = from;
      store.edit((was) => {
        now = was;
        return was === from ? made.document : was;
      });
      if (now === from) {
        await store.flush();
        return { span: made.span, problem: "" };
      }
      from = now;
    }
  } catch (error) {
    return { span: null, problem: sentence(error) };
  }
}

/** What of the damage is still in the line: what was cut out with a mended stretch is in its record only. */
export function stillDamaged(line: Line, looked: Looked): Looked["damage"] {
  const stays = new Set(
    line.spans.flatMap((span) => (span.kind === "rigid" && span.state === "stays" ? [span.id] : [])),
  );
  // a line of one piece has nothing cut out of it
  return stays.size === 0 || line.spans.length === 1
    ? looked.damage
    : looked.damage.filter(({ span }) => stays.has(span));
}
