import { useEffect, useState } from "react";
import { api, take } from "../api/client";
import type { Line, Step } from "../api/types";
import { Newest } from "./newest";

/** The order of work of a tube, asked for where a stage shows it; what stood there stays while the next is under way. */
export function useSteps(document: Line, tube: string): Step[] {
  const [steps, setSteps] = useState<Step[]>([]);
  const [newest] = useState(() => new Newest());
  useEffect(() => {
    const answer = take(api.POST("/api/steps", { body: document, params: { query: { span: tube } } }));
    newest.ask(answer, (got) => {
      if (got.ok) setSteps(got.value);
    });
  }, [document, newest, tube]);
  return steps;
}
