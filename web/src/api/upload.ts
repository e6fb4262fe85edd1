import { Refusal } from "./client";

/** Send a file as it is; the answer, or a refusal that can be shown. */
export async function sendFile<T>(address: string, file: File): Promise<T> {
  const answer = await fetch(address, { method: "POST", body: file }).catch(() => null);
  if (!answer) throw new Refusal("Bendrel does not answer. Is it still running?", 0);
  const body = (await answer.json()) as T & { message?: string };
  if (!answer.ok) throw new Refusal(body.message ?? "The file was not read.", answer.status);
  return body;
}
