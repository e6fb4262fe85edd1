/** Where a cut mark goes for a key, in mm from end A: a millimetre, ten with shift; null for any other key. */
export function cutByKey(mm: number, key: string, far: boolean): number | null {
  const by = key === "ArrowRight" ? 1 : key === "ArrowLeft" ? -1 : 0;
  return by === 0 ? null : Math.max(0, mm + by * (far ? 10 : 1));
}

/** Where it goes as it is drawn along the strip: from the place that it was taken hold of. */
export const cutByHand = (held: { x: number; mm: number }, x: number, pixelsPerMm: number): number =>
  Math.max(0, held.mm + (x - held.x) / Math.max(1e-9, pixelsPerMm));
