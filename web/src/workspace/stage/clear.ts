/** A label on the stage by its middle, in pixels. */
export interface Place {
  x: number;
  y: number;
  wide: number;
  tall: number;
}

const AWAY = [0, 1, -1, 2, -2];

/** The place next to `at` where the label touches none of those that are there, up or down before sideways; `at`
 * itself where there is none. */
export function clear(
  at: { x: number; y: number },
  label: { offsetWidth: number; offsetHeight: number },
  taken: readonly Place[],
  stage: { width: number; height: number },
): { x: number; y: number } {
  const { offsetWidth: wide, offsetHeight: tall } = label;
  const free = (x: number, y: number) =>
    x >= wide / 2 &&
    x <= stage.width - wide / 2 &&
    y >= tall / 2 &&
    y <= stage.height - tall / 2 &&
    taken.every((one) => Math.abs(one.x - x) >= (one.wide + wide) / 2 || Math.abs(one.y - y) >= (one.tall + tall) / 2);
  for (const across of AWAY)
    for (const down of AWAY) {
      const [x, y] = [at.x + (across * wide) / 2, at.y + (down * tall) / 2];
      if (free(x, y)) return { x, y };
    }
  return at;
}
