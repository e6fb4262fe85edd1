const MOST_MINUTES = 100_000;
const MOST_CENTS = 100_000_000;

/** Minutes from `45`, `45 min`, `1:30`, `1 h`, `1.5 h`; null for anything else. */
export function readTime(text: string): number | null {
  const clean = text.trim().toLowerCase();
  if (clean === "") return 0;
  const clock = /^(\d{1,4}):([0-5]\d)$/.exec(clean);
  const hours = /^(\d{1,4}(?:\.\d+)?)\s*h$/.exec(clean);
  const plain = /^(\d{1,6})\s*(?:min)?$/.exec(clean);
  const minutes = clock
    ? Number(clock[1]) * 60 + Number(clock[2])
    : hours
      ? Math.round(Number(hours[1]) * 60)
      : plain
        ? Number(plain[1])
        : null;
  return minutes !== null && minutes <= MOST_MINUTES ? minutes : null;
}

/** Hundredths from `12`, `12.5` or `12.50`; null for anything else. */
export function readMoney(text: string): number | null {
  const clean = text.trim();
  if (clean === "") return 0;
  const cents = /^\d{1,7}(?:\.\d{1,2})?$/.test(clean) ? Math.round(Number(clean) * 100) : null;
  return cents !== null && cents <= MOST_CENTS ? cents : null;
}

export function sayTime(minutes: number): string {
  const rest = minutes % 60;
  if (minutes < 60) return `${minutes} min`;
  return rest === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${rest} min`;
}

export const sayMoney = (cents: number): string => (cents / 100).toFixed(2);

/** What is sold by the metre. */
export function sayMetres(mm: number): string {
  return `${Number((mm / 1000).toFixed(2))} m`;
}

/** A volume in ml, from a litre on in litres. */
export function sayVolume(ml: number): string {
  return Math.abs(ml) >= 1000 ? `${(ml / 1000).toFixed(2)} L` : `${Math.round(ml)} ml`;
}
