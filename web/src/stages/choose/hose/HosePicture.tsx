import Box from "@mui/material/Box";
import { useState } from "react";
import type { HoseStudy } from "../../../api/types";
import { condensed } from "../../../theme/theme";
import { Segments } from "../../../ui/Segments";
import type { Point, ViewOf } from "./projected";
import { flat, frameOf, outlineOf, widest } from "./projected";

const VIEWS: { value: ViewOf; text: string }[] = [
  { value: "above", text: "From above" },
  { value: "side", text: "From the side" },
  { value: "ahead", text: "From ahead" },
];

interface Props {
  study: HoseStudy;
  /** Which position is drawn strongly. */
  at: number;
  od: number;
}

/** The hose to scale between its ends, faint at every position of its travel, with what stands beside it. */
export function HosePicture({ study, at, od }: Props) {
  const shown = study.positions[at]?.points ?? study.fitted;
  const all = [...study.positions.flatMap((one) => one.points), ...study.fitted] as Point[];
  const ends = study.laid ? [study.laid.ends.a.point, study.laid.ends.b.point] : [];
  const [chosen, setChosen] = useState<ViewOf | null>(null);
  const view = chosen ?? widest(all.length ? all : ends);
  const outlines = study.beside.flatMap((item) => outlineOf(item.item, view, item.shape) ?? []);
  const own = [...all, ...(ends as Point[])].map((point) => flat(view, point));
  const hose = frameOf(own, od * 2);
  // things beside are drawn where they come near: a long pipe must not make the hose small
  const near = outlines.flatMap(({ points }) =>
    points.map(([x, y]): [number, number] => [
      Math.min(Math.max(x, hose.x - hose.w * 0.25), hose.x + hose.w * 1.25),
      Math.min(Math.max(y, hose.y - hose.h * 0.25), hose.y + hose.h * 1.25),
    ]),
  );
  const frame = frameOf([...own, ...near], Math.max(od * 2, 12));
  const line = (points: readonly (readonly number[])[]) =>
    points
      .map((point) =>
        flat(view, point)
          .map((v) => v.toFixed(1))
          .join(","),
      )
      .join(" ");
  const names = new Map(study.beside.map((item) => [item.item, item.what]));
  const unit = Math.max(frame.w, frame.h) / 100;
  const least = study.laid?.needs_mm ?? 0;
  const tight = study.positions[at]?.radius_mm;
  const wrong = tight != null && tight < least;
  return (
    <Box>
      <Segments label="Seen" value={view} options={VIEWS} onChange={setChosen} />
      <Box
        component="svg"
        role="img"
        aria-label={`The hose ${VIEWS.find((one) => one.value === view)?.text.toLowerCase() ?? ""}`}
        viewBox={`${frame.x} ${frame.y} ${frame.w} ${frame.h}`}
        sx={{
          display: "block",
          width: "100%",
          maxHeight: 300,
          mt: 1,
          background: "var(--sheet)",
          border: "1px solid var(--rule)",
        }}
      >
        {outlines.map((one) =>
          one.kind === "round" ? (
            <circle
              key={one.key}
              cx={one.points[0]?.[0]}
              cy={one.points[0]?.[1]}
              r={one.size}
              fill="var(--nut)"
              stroke="var(--second)"
              strokeWidth={unit * 0.4}
            />
          ) : (
            <g key={one.key}>
              <polyline
                points={one.points.map((point) => point.join(",")).join(" ")}
                fill={one.size ? "none" : "var(--nut)"}
                stroke="var(--second)"
                strokeWidth={Math.max(one.size, unit * 0.6) + unit * 0.8}
                strokeLinecap={one.size ? "round" : "square"}
              />
              {one.size > 0 && (
                <polyline
                  points={one.points.map((point) => point.join(",")).join(" ")}
                  fill="none"
                  stroke="var(--nut)"
                  strokeWidth={one.size}
                  strokeLinecap="round"
                />
              )}
            </g>
          ),
        )}
        {study.positions.map((one, k) =>
          k % Math.ceil(study.positions.length / 12) === 0 ? (
            <polyline
              key={one.gone.join(" ")}
              points={line(one.points)}
              fill="none"
              stroke="var(--rule)"
              strokeWidth={unit * 0.5}
            />
          ) : null,
        )}
        <polyline
          points={line(shown)}
          fill="none"
          stroke={wrong ? "var(--stop)" : "var(--ink)"}
          strokeWidth={od}
          strokeLinejoin="round"
        />
        <polyline
          points={line(shown)}
          fill="none"
          stroke="var(--shadow)"
          strokeWidth={od * 0.55}
          strokeLinejoin="round"
        />
        {(["A", "B"] as const).map((name, k) => {
          const point = k === 0 ? shown[0] : shown[shown.length - 1];
          if (!point) return null;
          const [x, y] = flat(view, point);
          return (
            <g key={name}>
              <circle cx={x} cy={y} r={unit * 2.6} fill="var(--ink)" />
              <text
                x={x}
                y={y}
                dy="0.36em"
                textAnchor="middle"
                fontFamily={condensed}
                fontWeight={600}
                fontSize={unit * 4}
                fill="var(--paper)"
              >
                {name}
              </text>
            </g>
          );
        })}
        {outlines.map((one) => {
          const [x = 0, y = 0] = one.points[0] ?? [];
          const inX = Math.min(Math.max(x, frame.x + frame.w * 0.12), frame.x + frame.w * 0.88);
          const inY = Math.min(Math.max(y, frame.y + frame.h * 0.08), frame.y + frame.h * 0.96);
          return (
            <text
              key={one.key}
              x={inX}
              y={inY}
              textAnchor="middle"
              fontFamily={condensed}
              fontSize={unit * 4}
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth={unit * 0.8}
              paintOrder="stroke"
            >
              {names.get(one.key)}
            </text>
          );
        })}
      </Box>
    </Box>
  );
}
