/** A date as it is said in the shop: 4 Dec. */
export function sayDay(iso: string): string {
  return new Date(`${iso}T12:00`).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
}

/** The day of a moment that is kept in UTC, as the shop's clock has it: 4 Dec, or 4 Dec 2026. */
export function sayDayOf(moment: string, withYear = false): string {
  return new Date(`${moment}Z`).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    year: withYear ? "numeric" : undefined,
  });
}
