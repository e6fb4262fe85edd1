import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { sentence } from "../api/client";

interface How {
  /** Nothing is asked, and there is no answer, while it is not wanted. */
  wanted?: boolean;
  /** It waits for so long a quiet, in ms: for what takes longer than a key. */
  quiet?: number;
  /** The last good answer stands where a newer question was refused. */
  stays?: boolean;
}

export interface Asked<T> {
  answer: T | undefined;
  /** Why there is none, in a sentence. */
  problem: string;
  error: unknown;
  /** A newer answer is being worked out; what stands there is from before. */
  asking: boolean;
  again: () => void;
}

/** The answer to a question that changes as somebody types: asked anew at every change of `about`, an older question
 * given up. What stood there stays until the next answer. */
export function useAsked<T>(
  about: readonly unknown[],
  ask: (signal: AbortSignal) => Promise<T>,
  { wanted = true, quiet = 0, stays = false }: How = {},
): Asked<T> {
  const query = useQuery({
    queryKey: about,
    queryFn: async ({ signal }) => {
      if (quiet) await still(quiet, signal);
      return ask(signal);
    },
    enabled: wanted,
    retry: false,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 0,
  });
  const [last, setLast] = useState(query.data);
  if (query.data !== undefined && query.data !== last) setLast(query.data);
  const answer = query.data ?? (stays ? last : undefined);
  return {
    answer: wanted ? answer : undefined,
    problem: wanted && query.isError ? sentence(query.error) : "",
    error: query.error,
    asking: query.isFetching,
    again: () => void query.refetch(),
  };
}

/** A quiet of `ms`; given up with what waits for it. */
function still(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((done, giveUp) => {
    const timer = setTimeout(done, ms);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      giveUp(signal.reason as Error);
    });
  });
}
