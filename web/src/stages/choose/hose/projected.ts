import type { AtPosition, HoseStudy } from "../../../api/types";

export type Point = [number, number, number];
export type ViewOf = "above" | "side" | "ahead";

/** What lies across and what lies up on the paper, and which way grows. */
const AXES: Record<ViewOf, [number, number, number, number]> = {
  above: [0, 1, 1, 1],
  side: [0, 2, 1, 1],
  ahead: [1, 2, -1, 1],
};

export const flat = (view: ViewOf, point: readonly number[]): [number, number] => {
  const [across, up, one, other] = AXES[view];
  return [one * (point[across] ?? 0), -other * (point[up] ?? 0)];
};

/** The view in which the hose shows itself widest. */
export function widest(points: readonly Point[]): ViewOf {
  const spread = [0, 1, 2].map((k) => {
    const all = points.map((point) => point[k] ?? 0);
    return Math.max(...all) - Math.min(...all);
  });
  const least = spread.indexOf(Math.min(...spread));
  return least === 2 ? "above" : least === 1 ? "side" : "ahead";
}

type Shape = HoseStudy["beside"][number]["shape"];

/** The outline of something beside the hose: a round of a radius, or a stroke of a width. */
export interface Outline {
  key: string;
  kind: "round" | "stroke";
  points: [number, number][];
  size: number;
}

export function outlineOf(key: string, view: ViewOf, shape: Shape): Outline | null {
  if ("middle" in shape) return { key, kind: "round", points: [flat(view, shape.middle)], size: shape.radius_mm };
  if ("points" in shape)
    return { key, kind: "stroke", points: shape.points.map((point) => flat(view, point)), size: shape.radius_mm * 2 };
  if ("start" in shape)
    return {
      key,
      kind: "stroke",
      points: [flat(view, shape.start), flat(view, shape.stop)],
      size: shape.radius_mm * 2,
    };
  if ("least" in shape) {
    const [a, b] = [flat(view, shape.least), flat(view, shape.most)];
    return { key, kind: "stroke", points: [a, [b[0], a[1]], b, [a[0], b[1]], a], size: 0 };
  }
  return null;
}

/** Everything that the picture must hold. */
export function frameOf(points: [number, number][], margin: number): { x: number; y: number; w: number; h: number } {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [left, right, top, low] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return { x: left - margin, y: top - margin, w: right - left + 2 * margin, h: low - top + 2 * margin };
}

/** The position at which nothing has moved. */
export const homeOf = (positions: readonly AtPosition[]): number =>
  Math.max(
    0,
    positions.findIndex((at) => at.gone.every((far) => Math.abs(far) < 1e-9)),
  );
