/** Give every label the first lane in which it does not touch the one before it; -1 where none is free. */
export function lanes(places: readonly number[], width: number, count: number): number[] {
  const ends = new Array<number>(count).fill(-Infinity);
  return places.map((x) => {
    const lane = ends.findIndex((end) => x - width / 2 >= end);
    if (lane >= 0) ends[lane] = x + width / 2;
    return lane;
  });
}
