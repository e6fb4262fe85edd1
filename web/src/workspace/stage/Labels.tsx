import { useFrame, useThree } from "@react-three/fiber";
import type { RefObject } from "react";
import { useEffect } from "react";
import { Vector3 } from "three";
import { Sign } from "../Sign";
import { useSelection } from "../../doc/select";
import { condensed } from "../../theme/theme";
import type { Camera } from "./camera";
import type { Place } from "./clear";
import { clear } from "./clear";
import type { Figure, OtherFigure, TubeFigure } from "./figure";

export interface Anchor {
  key: string;
  at: Vector3;
  /** It is a sign of what lies there: others make way for it. */
  fixed?: boolean;
}

/** Where labels hang: bends on their backs, ends beyond their openings, within the paper of the view. */
export function anchorsOf(figure: Figure, camera: Camera): Anchor[] {
  const onPaper = (way: Vector3) => {
    const flat = camera.right
      .clone()
      .multiplyScalar(way.dot(camera.right))
      .addScaledVector(camera.up, way.dot(camera.up));
    return flat.length() > 1e-3 ? flat.normalize() : camera.up.clone();
  };
  const ends = (["A", "B"] as const).flatMap((name) => {
    const end = figure.ends[name];
    return end ? [{ key: name, at: end.point.clone().addScaledVector(onPaper(end.outward), camera.reach * 1.5) }] : [];
  });
  const signs = figure.others
    .filter((other) => other.what !== "hose")
    .map((other) => ({ key: `span ${other.span}`, at: middleOf(other), fixed: true }));
  return [...signs, ...bendAnchors(figure, camera, onPaper), ...ends];
}

function bendAnchors({ main }: Figure, camera: Camera, onPaper: (way: Vector3) => Vector3): Anchor[] {
  if (!main) return [];
  const { part, into } = main;
  const points = [
    new Vector3(...part.end_a.point).applyMatrix4(into),
    ...part.bends.map((bend) => middleAt(main, bend.middle_mm)),
    new Vector3(...part.end_b.point).applyMatrix4(into),
  ];
  return part.bends.map((bend, k) => {
    const here = points[k + 1] ?? new Vector3();
    const before = (points[k] ?? here).clone().sub(here).normalize();
    const after = (points[k + 2] ?? here).clone().sub(here).normalize();
    return {
      key: String(bend.number),
      at: here.clone().addScaledVector(onPaper(before.add(after).negate()), camera.reach),
    };
  });
}

/** The drawn point nearest to a place along a tube. */
function middleAt({ path, points }: TubeFigure, mm: number): Vector3 {
  const off = path.map(([at]) => Math.abs(at - mm));
  return points[off.indexOf(Math.min(...off))] ?? new Vector3();
}

const middleOf = ({ points }: OtherFigure): Vector3 => {
  const half = points[Math.floor((points.length - 1) / 2)] ?? new Vector3();
  const next = points[Math.ceil((points.length - 1) / 2)] ?? half;
  return half.clone().add(next).multiplyScalar(0.5);
};

/** What lies over the stage and keeps its place, such as the choice of view. */
function overStage(labels: HTMLElement): Place[] {
  const stage = labels.getBoundingClientRect();
  const over = labels.closest("[data-webgl]")?.querySelectorAll("[data-over-stage]") ?? [];
  return [...over].map((one) => {
    const { left, top, width, height } = one.getBoundingClientRect();
    return { x: left - stage.left + width / 2, y: top - stage.top + height / 2, wide: width, tall: height };
  });
}

/** Inside the scene: carries the labels along as the part is turned; an end's words make way for the numbers. */
export function Follow({ anchors, box }: { anchors: readonly Anchor[]; box: RefObject<HTMLDivElement | null> }) {
  const invalidate = useThree((state) => state.invalidate);
  // labels are no part of the scene: new ones ask for a frame themselves
  useEffect(() => invalidate());
  useFrame(({ camera, size }) => {
    const taken = box.current ? overStage(box.current) : [];
    for (const { key, at, fixed } of anchors) {
      const label = box.current?.querySelector<HTMLElement>(`[data-label="${key}"]`);
      if (!label) continue;
      const seen = at.clone().project(camera);
      const place = { x: ((seen.x + 1) / 2) * size.width, y: ((1 - seen.y) / 2) * size.height };
      const { x, y } = fixed ? place : clear(place, label, taken, size);
      taken.push({ x, y, wide: label.offsetWidth, tall: label.offsetHeight });
      label.style.transform = `translate(${x.toFixed(1)}px, ${y.toFixed(1)}px) translate(-50%, -50%)`;
    }
  });
  return null;
}

/** What stands at each end of the part; null where it is not known yet how far it goes. */
export type EndLabels = Record<"A" | "B", { label: string; thread: string } | null>;

/** Beside the scene: bend numbers that can be chosen, and what the ends go to. */
export function Labels({ figure, ends, zoom }: { figure: Figure; ends: EndLabels; zoom: number }) {
  const { bend: chosen, choose, place, choosePlace } = useSelection();
  return (
    <>
      {figure.others.map(({ span, what, points }) => {
        if (what === "hose") return null;
        const [first, last] = [points[0], points[points.length - 1]];
        // never so large that neighbours hide each other, never too small to be told
        const wide = Math.max(26, Math.min(44, first && last ? first.distanceTo(last) * zoom : 44));
        const here = place?.kind === "span" && place.id === span;
        return (
          <button
            key={span}
            type="button"
            tabIndex={-1}
            data-label={`span ${span}`}
            aria-label={`Choose the ${what}`}
            onClick={() => choosePlace(here ? null : { kind: "span", id: span })}
            style={{
              position: "absolute",
              left: 0,
              top: 0,
              padding: 0,
              border: 0,
              lineHeight: 0,
              background: "none",
              outline: here ? "2px dashed var(--action)" : "none",
              cursor: "pointer",
            }}
          >
            <svg width={wide} height={wide * 0.73} viewBox="-22 -16 44 32" aria-hidden>
              <Sign what={what} x={0} y={0} />
            </svg>
          </button>
        );
      })}
      {figure.main?.part.bends.map((bend) => {
        const here = chosen === bend.number;
        return (
          <button
            key={bend.number}
            type="button"
            tabIndex={-1}
            data-label={bend.number}
            aria-label={`Choose bend ${bend.number}`}
            onClick={() => choose(bend.number)}
            style={{
              position: "absolute",
              left: 0,
              top: 0,
              width: 24,
              height: 24,
              padding: 0,
              borderRadius: 12,
              border: "1.5px solid var(--ink)",
              background: here ? "var(--ink)" : "var(--sheet)",
              color: here ? "var(--paper)" : "var(--ink)",
              font: `600 15px ${condensed}`,
              cursor: "pointer",
            }}
          >
            {bend.number}
          </button>
        );
      })}
      {(["A", "B"] as const).map((end) => {
        const choice = figure.ends[end] && ends[end];
        if (!choice) return null;
        return (
          <div
            key={end}
            data-label={end}
            style={{
              position: "absolute",
              left: 0,
              top: 0,
              maxWidth: 150,
              textAlign: "center",
              pointerEvents: "none",
              whiteSpace: "nowrap",
            }}
          >
            <div style={{ font: `600 17px ${condensed}` }}>End {end}</div>
            <div
              style={{
                font: `500 14px ${condensed}`,
                color: "var(--second)",
                overflow: "hidden",
                textOverflow: "ellipsis",
              }}
            >
              {choice.label}
            </div>
            <div style={{ font: `500 14px ${condensed}`, color: "var(--second)" }}>{choice.thread}</div>
          </div>
        );
      })}
    </>
  );
}
