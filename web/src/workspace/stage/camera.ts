import { Vector3 } from "three";
import type { ViewName } from "../../api/types";
import type { Figure } from "./figure";
import { pointsOf } from "./figure";
import type { Size } from "./useStageSize";

export interface Camera {
  target: Vector3;
  position: Vector3;
  light: Vector3;
  up: Vector3;
  right: Vector3;
  zoom: number;
  depth: number;
  /** Thinnest radius at which the tube is still seen, in mm. */
  least: number;
  /** How far labels stand off, in mm. */
  reach: number;
}

/** Margins around the part, in pixels: room for labels, and for the choice of view at the top. */
const BESIDE = 104;
const AROUND = 48;
const HEAD = 52;
/** Where fingers press, the choice of view is higher. */
const HEAD_FOR_FINGERS = 80;

/** Where to stand for a view of the core: square to its paper, close enough to fill the stage. */
export function cameraFor(figure: Figure, looking: ViewName, size: Size): Camera {
  const paper = figure.views[looking] ?? figure.views.free;
  if (!paper) throw new Error("a plan has views");
  const right = new Vector3(...paper.right);
  const up = new Vector3(...paper.up);
  const towards = right.clone().cross(up);
  const points = pointsOf(figure);
  const span = (axis: Vector3) => {
    const along = points.map((point) => point.dot(axis));
    return { low: Math.min(...along), high: Math.max(...along) };
  };
  const [x, y, z] = [span(right), span(up), span(towards)];
  const mid = (range: { low: number; high: number }) => (range.low + range.high) / 2;
  const target = new Vector3()
    .addScaledVector(right, mid(x))
    .addScaledVector(up, mid(y))
    .addScaledVector(towards, mid(z));
  const wide = Math.max(x.high - x.low, 20);
  const tall = Math.max(y.high - y.low, 20);
  const head = matchMedia("(pointer: coarse)").matches ? HEAD_FOR_FINGERS : HEAD;
  const zoom = Math.min((size.width - 2 * BESIDE) / wide, (size.height - head - 2 * AROUND) / tall);
  const safe = Math.max(zoom, 0.01);
  target.addScaledVector(up, head / 2 / safe);
  const far = Math.max(wide, tall, z.high - z.low) * 6;
  return {
    target,
    up,
    right,
    zoom: safe,
    position: target.clone().addScaledVector(towards, far / 2),
    light: target
      .clone()
      .addScaledVector(towards, far)
      .addScaledVector(up, far * 0.9)
      .addScaledVector(right, -far * 0.5),
    depth: far * 2,
    least: 4.2 / safe,
    reach: 24 / safe,
  };
}
