import { Refusal } from "./client";

/** Keep a file that the server makes; a refusal is said, not saved. Says what could not come with it. */
export async function saveFile(address: string): Promise<{ missingPhotos: number; unreadableLines: number }> {
  const answer = await fetch(address).catch(() => null);
  if (!answer) throw new Refusal("Bendrel does not answer. Is it still running?", 0);
  if (!answer.ok) {
    const body = (await answer.json().catch(() => ({}))) as { message?: string };
    throw new Refusal(body.message ?? "The file could not be made.", answer.status);
  }
  const named = /filename\*=UTF-8''([^;]+)/.exec(answer.headers.get("content-disposition") ?? "");
  const link = document.createElement("a");
  link.href = URL.createObjectURL(await answer.blob());
  link.download = named?.[1] ? decodeURIComponent(named[1]) : "bendrel";
  link.click();
  URL.revokeObjectURL(link.href);
  const count = (name: string) => Number(answer.headers.get(name) ?? 0);
  return { missingPhotos: count("x-missing-photos"), unreadableLines: count("x-unreadable-lines") };
}
