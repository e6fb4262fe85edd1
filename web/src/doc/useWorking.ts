import { useEffect, useState } from "react";
import { api, take } from "../api/client";
import type { Derivation, Line } from "../api/types";
import { Newest } from "./newest";

/** The working of one figure, asked for when it is opened and anew while the line changes; null while none is. */
export function useWorking(document: Line, tube: string, id: string | null): Derivation | null {
  const [found, setFound] = useState<Derivation[]>([]);
  const [newest] = useState(() => new Newest());
  const open = id !== null;
  useEffect(() => {
    if (!open) return;
    const answer = take(api.POST("/api/working", { body: document, params: { query: { span: tube } } }));
    newest.ask(answer, (got) => {
      // what stood there stays where the question went unanswered
      if (got.ok) setFound(got.value);
    });
  }, [document, newest, open, tube]);
  return found.find((one) => one.id === id) ?? null;
}
