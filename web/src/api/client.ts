import createClient from "openapi-fetch";
import type { paths } from "./schema";
import type { Line } from "./types";

export const api = createClient<paths>({ baseUrl: "" });

/** A refusal from the server: one sentence for the person, and what is stored where it was stale. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly version: number | null = null,
    readonly current: Line | null = null,
  ) {
    super(message);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Refusal that can be shown as it is. */
export async function take<T>(request: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await request;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Refusal("Bendrel does not answer. Is it still running?", 0);
  }
  if (answer.response.ok) return answer.data as T;
  const body = (answer.error ?? {}) as { message?: string; version?: number; current?: unknown };
  throw new Refusal(
    body.message ?? `Bendrel answered with error ${answer.response.status}.`,
    answer.response.status,
    body.version ?? null,
    (body.current ?? null) as Line | null,
  );
}

export function sentence(error: unknown): string {
  return error instanceof Refusal ? error.message : "Something went wrong; nothing was changed.";
}
