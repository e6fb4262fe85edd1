import type { InstrumentReading } from "../api/types";

/** What a field takes: said by its `data-takes`. */
type Takes = "length" | "angle";

const AXES = ["x", "y", "z"];

/** Put a reading into the field that has the cursor; returns why not, or nothing. */
export function dropReading(reading: InstrumentReading): string {
  const field = document.activeElement;
  const takes =
    field instanceof HTMLInputElement && !field.readOnly ? (field.dataset["takes"] as Takes | undefined) : undefined;
  if (!(field instanceof HTMLInputElement) || takes === undefined)
    return `${reading.texts.join(", ")} was measured; put the cursor into a reading to take it.`;
  if (reading.instrument === "probe") return dropPoint(field, reading);
  const wanted = reading.instrument === "gauge" ? "angle" : "length";
  if (takes !== wanted)
    return `The cursor is in ${takes === "angle" ? "an angle" : "a length"}; ${reading.texts[0] ?? ""} does not go there.`;
  write(field, reading.texts[0] ?? "");
  return "";
}

function dropPoint(field: HTMLInputElement, reading: InstrumentReading): string {
  const row = field.dataset["row"];
  if (!AXES.includes(field.dataset["column"] ?? "") || row === undefined)
    return "The probe gives a point; put the cursor into a corner point to take it.";
  AXES.forEach((axis, k) => {
    const cell = document.querySelector<HTMLInputElement>(`input[data-row="${row}"][data-column="${axis}"]`);
    if (cell) write(cell, reading.texts[k] ?? "");
  });
  return "";
}

/** As if it had been typed, so that it is kept and can be undone like typing. */
function write(field: HTMLInputElement, text: string): void {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}
