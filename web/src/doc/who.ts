import { useSyncExternalStore } from "react";
import { keep, kept } from "../api/kept";
import { localTime } from "./proving";

const KEY = "bendrel-who";
const told = new Set<() => void>();

/** Who is at the work on this device: a name that every tick and every look is noted with. */
export const whoIsAtIt = (): string => kept(KEY) ?? "";

/** The present moment and who is at it, as a tick or a look is noted with. */
export const asNoted = (): { at: string; by: string } => ({ at: localTime(new Date(), true), by: whoIsAtIt() });

export function setWho(name: string): void {
  keep(KEY, name.trim() ? name.slice(0, 60) : null);
  told.forEach((tell) => tell());
}

export function useWho(): string {
  return useSyncExternalStore((tell) => {
    told.add(tell);
    return () => told.delete(tell);
  }, whoIsAtIt);
}
