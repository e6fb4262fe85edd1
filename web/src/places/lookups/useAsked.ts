import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { sentence } from "../../api/client";

/** An answer to what is typed, asked anew at every change; a refusal is one sentence, and the answer
 * before it stays until the input is right again. */
export function useAsked<T>(
  name: string,
  order: unknown,
  ask: () => Promise<T>,
  ready = true,
): { answer: T | undefined; problem: string } {
  const query = useQuery({
    queryKey: ["lookup", name, order],
    queryFn: ask,
    enabled: ready,
    retry: false,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  return {
    answer: ready && !query.isError ? query.data : undefined,
    problem: ready && query.isError ? sentence(query.error) : "",
  };
}
