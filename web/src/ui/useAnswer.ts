import { useEffect, useState } from "react";
import { sentence } from "../api/client";

interface Answer<T> {
  made: T | null;
  problem: string;
}

/** The newest answer to a question that changes as somebody types; `ask` null asks nothing. */
export function useAnswer<T>(ask: (() => Promise<T>) | null): Answer<T> {
  const [answer, setAnswer] = useState<Answer<T>>({ made: null, problem: "" });
  useEffect(() => {
    let gone = false;
    if (!ask) {
      setAnswer({ made: null, problem: "" });
      return;
    }
    ask()
      .then((made) => !gone && setAnswer({ made, problem: "" }))
      .catch((error: unknown) => !gone && setAnswer({ made: null, problem: sentence(error) }));
    return () => {
      gone = true;
    };
  }, [ask]);
  return answer;
}
