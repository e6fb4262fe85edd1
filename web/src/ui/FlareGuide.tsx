import Box from "@mui/material/Box";
import type { FlarePicture, Flaring } from "../api/types";
import { condensed } from "../theme/theme";

interface Props {
  flaring: Flaring;
  /** To be read at two metres. */
  large?: boolean;
}

/** How an end is flared, step by step, with cuts through right and wrong ones beside the step that makes them. */
export function FlareGuide({ flaring, large = false }: Props) {
  return (
    <Box
      component="ol"
      aria-label={`Flaring end ${flaring.end}`}
      sx={{ m: 0, p: 0, listStyle: "none", columnGap: "32px", columnCount: large ? { xs: 1, md: 2 } : 1 }}
    >
      {flaring.steps.map((step, k) => (
        <Box
          component="li"
          key={step.id}
          data-flaring={step.id}
          sx={{
            display: "flex",
            gap: 1.5,
            py: large ? 0.75 : 0.5,
            borderTop: "1px solid var(--rule)",
            breakInside: "avoid",
          }}
        >
          <Box sx={{ font: `600 ${large ? 22 : 16}px ${condensed}`, minWidth: large ? 30 : 18, textAlign: "right" }}>
            {k + 1}
          </Box>
          <Box sx={{ flex: 1, fontSize: large ? 20 : 15, lineHeight: 1.3 }}>
            {step.text}
            <Box sx={{ fontSize: large ? 16 : 14, color: "var(--second)" }}>{step.why}</Box>
            {step.pictures.length > 0 && (
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 0.75 }}>
                {step.pictures.map((picture) => (
                  <Picture key={picture.id} picture={picture} flaring={flaring} large={large} />
                ))}
              </Box>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** The same, folded until it is wanted. */
export function HowToFlare({ flaring }: { flaring: Flaring }) {
  return (
    <Box
      component="details"
      sx={{
        "& summary": {
          cursor: "pointer",
          color: "var(--second)",
          "@media (pointer: coarse)": { minHeight: 44, pt: 1 },
        },
      }}
    >
      <summary>Flaring end {flaring.end}, step by step</summary>
      <FlareGuide flaring={flaring} />
    </Box>
  );
}

function Picture({ picture, flaring, large }: { picture: FlarePicture; flaring: Flaring; large: boolean }) {
  const edge = flaring.wall_mm;
  // every picture of one tube is drawn to one scale, whatever came of it
  const [left, wide, tall] = [-1.5 * flaring.od_mm, 2.2 * flaring.od_mm, 2 * flaring.od_mm];
  return (
    <Box component="figure" sx={{ m: 0, width: large ? 150 : 130 }}>
      <svg
        viewBox={`${left} ${-tall / 2} ${wide} ${tall}`}
        role="img"
        aria-label={`${picture.right ? "Right" : "Wrong"}: ${picture.text}`}
        style={{
          display: "block",
          width: "100%",
          background: "var(--sheet)",
          border: `2px solid var(--${picture.right ? "good" : "stop"})`,
        }}
      >
        <line
          x1={left}
          x2={left + wide}
          y1="0"
          y2="0"
          stroke="var(--second)"
          strokeWidth={edge * 0.12}
          strokeDasharray={`${edge * 1.6} ${edge * 0.5} ${edge * 0.4} ${edge * 0.5}`}
        />
        {picture.strokes.map((stroke, k) => (
          <g key={k} fill="none" strokeLinejoin="round">
            <path d={path(stroke)} stroke="var(--ink)" strokeWidth={edge} strokeLinecap="square" />
            <path d={path(stroke)} stroke="var(--tube)" strokeWidth={edge * 0.78} strokeLinecap="square" />
          </g>
        ))}
        {picture.cracks.map((crack, k) => (
          <path key={k} d={path(crack)} fill="none" stroke="var(--stop)" strokeWidth={edge * 0.45} />
        ))}
      </svg>
      <Box component="figcaption" sx={{ fontSize: large ? 16 : 14, lineHeight: 1.25, mt: 0.25 }}>
        <Box component="b" sx={{ color: picture.right ? "var(--good)" : "var(--stop)" }}>
          {picture.right ? "Right" : "Wrong"}
        </Box>
        : {picture.text}
      </Box>
    </Box>
  );
}

const path = (stroke: FlarePicture["strokes"][number]) =>
  stroke.map(([x, y], k) => `${k ? "L" : "M"}${x} ${-y}`).join(" ");
