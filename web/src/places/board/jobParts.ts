/** The parts of a job's page in the order of work, each with its name and its key. */
export const JOB_PARTS = [
  { id: "lines", name: "Lines" },
  { id: "circuits", name: "Circuits" },
  { id: "strip-down", name: "Strip-down" },
  { id: "cuts", name: "Cut list" },
  { id: "kit", name: "Kit" },
  { id: "money", name: "Who pays" },
  { id: "papers", name: "Papers" },
] as const;

export type JobPart = (typeof JOB_PARTS)[number]["id"];

/** The part that an address names; the lines where it names none. */
export function jobPartOf(word: string | undefined): JobPart | null {
  if (word === undefined) return "lines";
  return JOB_PARTS.find((part) => part.id === word)?.id ?? null;
}
