import createClient from "openapi-fetch";
import type { MaybeOptionalInit } from "openapi-fetch";
import { patient } from "./patient";
import type { paths } from "./schema";
import type { Line } from "./types";

type Method = "get" | "post" | "put" | "delete";
type With<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, { responses: unknown }> ? P : never;
}[keyof paths];
type Body<R> = R extends { content: { "application/json": infer T } }
  ? T
  : R extends { content: { "image/svg+xml": unknown } }
    ? string
    : undefined;
type Success<Op> = Op extends { responses: infer R }
  ? { [S in keyof R & (200 | 201 | 204)]: Body<R[S]> }[keyof R & (200 | 201 | 204)]
  : never;
type Init<I> = Partial<I> extends I ? [init?: I] : [init: I];
type Call<M extends Method> = <P extends With<M>>(
  path: P,
  ...init: Init<MaybeOptionalInit<paths[P], M>>
) => Promise<Answer<Success<paths[P][M]>>>;

/** Every call with the answer's own type of the schema: openapi-fetch makes an array of a pair. */
interface Api {
  GET: Call<"get">;
  POST: Call<"post">;
  PUT: Call<"put">;
  DELETE: Call<"delete">;
}

const client = createClient<paths>({ baseUrl: "" });

export const api = {
  GET: patient(client.GET as AnyCall),
  POST: patient(client.POST as AnyCall),
  PUT: patient(client.PUT as AnyCall),
  DELETE: patient(client.DELETE as AnyCall),
} as Api;

/** A refusal from the server: one sentence for the person, and what is stored where it was stale. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly version: number | null = null,
    readonly current: Line | null = null,
    /** What is kept cannot be read; there are ways out. */
    readonly unreadable = false,
  ) {
    super(message);
  }
}

type AnyCall = (...asked: unknown[]) => Promise<Answer<unknown>>;

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
  const body = (answer.error ?? {}) as { message?: string; version?: number; current?: unknown; unreadable?: boolean };
  throw new Refusal(
    body.message ?? `Bendrel answered with error ${answer.response.status}.`,
    answer.response.status,
    body.version ?? null,
    (body.current ?? null) as Line | null,
    body.unreadable ?? false,
  );
}

/** Browsers let go of what outlives its page from 64 kB on. */
const OUTLIVES = 60_000;

/** A body that is still sent where the page is left meanwhile, as far as browsers do that. */
export const outliving = <T>(body: T): { body: T; keepalive: boolean } => ({
  body,
  keepalive: new Blob([JSON.stringify(body)]).size < OUTLIVES,
});

/** Somebody else was first: the version that is there now, to put one's own in its place knowingly. */
export const newerThan = (error: unknown): number | null =>
  error instanceof Refusal && error.status === 409 ? error.version : null;

export function sentence(error: unknown): string {
  return error instanceof Refusal ? error.message : "Something went wrong; nothing was changed.";
}
