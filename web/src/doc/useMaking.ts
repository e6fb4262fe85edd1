import { useCallback, useEffect, useRef, useState } from "react";
import { api, Refusal, sentence, take } from "../api/client";
import type { Making, MakingStanding, MakingState } from "../api/types";

export interface MakingEditor {
  making: Making;
  standing: MakingStanding;
  /** The standing is of readings that have changed since; its figures are not to be worked by. */
  reckoning: boolean;
  message: string;
  /** Keep a new state; it is shown at once and put back when it cannot be kept. */
  keep: (change: (state: MakingState) => MakingState) => void;
  end: (outcome: "good" | "scrap" | "given up") => Promise<void>;
}

const standingOf = (making: Making) =>
  take(
    api.POST("/api/bench/standing", {
      body: {
        document: making.document,
        span: making.span,
        made: making.state.made,
        offers: making.state.offers,
      },
    }),
  );

const readingsOf = (making: Making) => JSON.stringify([making.state.made, making.state.offers]);

/** The making of a line: begun or gone on with, kept at every step. */
export function useMaking(lineId: string, span: string): { editor: MakingEditor | null; problem: string } {
  const [making, setMaking] = useState<Making | null>(null);
  const [told, setTold] = useState<{ standing: MakingStanding; of: string } | null>(null);
  const [problem, setProblem] = useState("");
  const [message, setMessage] = useState("");
  const latest = useRef<Making | null>(null);
  const waiting = useRef(0);
  const queue = useRef<Promise<void>>(Promise.resolve());

  const accept = useCallback(async (next: Making) => {
    latest.current = next;
    setMaking(next);
    try {
      const standing = await standingOf(next);
      if (latest.current === next) setTold({ standing, of: readingsOf(next) });
    } catch (error) {
      // what was read is kept; only what follows from it is not known
      if (latest.current === next) setMessage(sentence(error));
    }
  }, []);

  useEffect(() => {
    take(api.POST("/api/lines/{line_id}/makings", { params: { path: { line_id: lineId }, query: { span } } }))
      .then(accept)
      .catch((error: unknown) => setProblem(sentence(error)));
  }, [accept, lineId, span]);

  const keep = useCallback(
    (change: (state: MakingState) => MakingState) => {
      const was = latest.current;
      if (!was) return;
      const shown = { ...was, state: change(was.state) };
      latest.current = shown;
      setMaking(shown);
      waiting.current += 1;
      queue.current = queue.current.then(async () => {
        waiting.current -= 1;
        try {
          const kept = await take(
            api.PUT("/api/makings/{making_id}", {
              params: { path: { making_id: was.id } },
              body: { version: latest.current?.version ?? was.version, state: shown.state },
            }),
          );
          setMessage("");
          // while more is waiting, only the version moves on; the last one brings the new standing
          if (waiting.current === 0) await accept(kept);
          else if (latest.current) latest.current = { ...latest.current, version: kept.version };
        } catch (error) {
          setMessage(sentence(error));
          if (error instanceof Refusal && (error.status === 409 || error.status === 422)) {
            const all = await take(api.GET("/api/lines/{line_id}/makings", { params: { path: { line_id: lineId } } }));
            const mine = all.find((item) => item.id === was.id);
            if (mine) await accept(mine);
          }
        }
      });
    },
    [accept, lineId],
  );

  const end = useCallback(
    async (outcome: "good" | "scrap" | "given up") => {
      await queue.current;
      const was = latest.current;
      if (!was) return;
      try {
        await accept(
          await take(
            api.POST("/api/makings/{making_id}/end", { params: { path: { making_id: was.id } }, body: { outcome } }),
          ),
        );
      } catch (error) {
        setMessage(sentence(error));
      }
    },
    [accept],
  );

  return {
    editor:
      making && told
        ? { making, standing: told.standing, reckoning: told.of !== readingsOf(making), message, keep, end }
        : null,
    problem: problem || (told ? "" : message),
  };
}
