import type { Unit } from "../api/types";

const MM_PER_INCH = 25.4;

/** A length as the shop says it: inches to the nearest 1/32, or tenths of a millimetre. */
export function sayLength(mm: number, unit: Unit): string {
  if (unit === "mm") return `${tenths(mm)} mm`;
  return `${sayInches(mm)}"`;
}

/** To a tenth, a half away from nought: as the sheet prints it. */
function tenths(value: number): string {
  const whole = Math.floor(Math.abs(value) * 10 + 0.5);
  return `${value < 0 && whole > 0 ? "-" : ""}${(whole / 10).toFixed(1).replace(/\.0$/, "")}`;
}

/** The bare figure, for rulers and marks where the unit is plain. */
export function sayFigure(mm: number, unit: Unit): string {
  return unit === "mm" ? sayLength(mm, unit).replace(" mm", "") : sayInches(mm);
}

/** A length as somebody would type it in the line's own unit. */
export const lengthAsTyped = (mm: number, unit: Unit): string =>
  unit === "mm" ? String(Math.round(mm)) : sayFigure(mm, unit);

function sayInches(mm: number): string {
  const parts = Math.floor((Math.abs(mm) / MM_PER_INCH) * 32 + 0.5);
  const sign = mm < 0 && parts > 0 ? "−" : "";
  const whole = Math.floor(parts / 32);
  let top = parts % 32;
  let bottom = 32;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (top === 0) return `${sign}${whole}`;
  return `${sign}${whole > 0 ? `${whole} ` : ""}${top}/${bottom}`;
}

export function sayAngle(degrees: number): string {
  return `${tenths(degrees).replace(/^-/, "−")}°`;
}

export function sayTurn(degrees: number): string {
  const turn = sayAngle(degrees);
  return degrees > 0 ? `+${turn}` : turn;
}

export function sayClock(degrees: number): string {
  const minutes = Math.floor((((degrees % 360) + 360) % 360) * 2 + 0.5) % 720;
  return `${Math.floor(minutes / 60) || 12}:${String(minutes % 60).padStart(2, "0")}`;
}

/** Ruler steps for a length: a small tick and a labelled one, in mm. */
export function rulerSteps(totalMm: number, unit: Unit): { tick: number; label: number } {
  const choices =
    unit === "in"
      ? [0.25, 0.5, 1, 2, 4, 6, 12, 24, 48, 120, 240, 480]
      : [5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000];
  const scale = unit === "in" ? MM_PER_INCH : 1;
  const label = choices.find((step) => totalMm / (step * scale) <= 20) ?? choices.at(-1) ?? 1;
  return { label: label * scale, tick: (label * scale) / (unit === "in" ? 4 : 5) };
}

/** A pressure in the person's system: psi beside inches, bar beside millimetres. */
export function sayPressure(kpa: number, unit: Unit): string {
  const value = unit === "in" ? kpa / 6.894757 : kpa / 100;
  const digits = value >= 100 ? 0 : value >= 10 ? 1 : 2;
  return `${value.toLocaleString("en", { minimumFractionDigits: digits, maximumFractionDigits: digits })} ${unit === "in" ? "psi" : "bar"}`;
}

/** A torque in the person's system: lbf·ft beside inches, N·m beside millimetres. */
export function sayTorque(leastNm: number, mostNm: number, unit: Unit): string {
  const [low, high] = [leastNm, mostNm].map((nm) => Math.round(unit === "in" ? nm / 1.355818 : nm));
  return `${low === high ? low : `${low} to ${high}`} ${unit === "in" ? "lbf·ft" : "N·m"}`;
}
