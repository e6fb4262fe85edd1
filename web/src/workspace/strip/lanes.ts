/** Give every label the first lane in which it does not touch the one before it; -1 where none is free. All are
 * of one width, or each of its own. */
export function lanes(places: readonly number[], width: number | readonly number[], count: number): number[] {
  const ends = new Array<number>(count).fill(-Infinity);
  return places.map((x, k) => {
    const half = (typeof width === "number" ? width : (width[k] ?? 0)) / 2;
    const lane = ends.findIndex((end) => x - half >= end);
    if (lane >= 0) ends[lane] = x + half;
    return lane;
  });
}
