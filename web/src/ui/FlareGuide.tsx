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
    <Box component="ol" aria-label={`Flaring end ${flaring.end}`} sx={{ m: 0, p: 0, listStyle: "none" }}>
      {flaring.steps.map((step, k) => (
        <Box
          component="li"
          key={step.id}
          data-flaring={step.id}
          sx={{ display: "flex", gap: 1.5, py: large ? 1 : 0.5, borderTop: "1px solid var(--rule)" }}
        >
          <Box sx={{ font: `600 ${large ? 26 : 16}px ${condensed}`, minWidth: large ? 30 : 18, textAlign: "right" }}>
            {k + 1}
          </Box>
          <Box sx={{ flex: 1, fontSize: large ? 24 : 15, lineHeight: 1.3 }}>
            {step.text}
            <Box sx={{ fontSize: large ? 18 : 14, color: "var(--second)" }}>{step.why}</Box>
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
  const points = picture.strokes.flat();
  const [left, right] = [Math.min(...points.map(([x]) => x)) + edge, Math.max(...points.map(([x]) => x)) + 2 * edge];
  // pictures of one tube are drawn to one scale, whatever came of it
  const tall = 2.3 * flaring.od_mm;
  return (
    <Box component="figure" sx={{ m: 0, width: large ? 230 : 150 }}>
      <svg
        viewBox={`${left} ${-tall / 2} ${right - left} ${tall}`}
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
          x2={right}
          y1="0"
          y2="0"
          stroke="var(--second)"
          strokeWidth={edge * 0.12}
          strokeDasharray={`${edge * 1.6} ${edge * 0.5} ${edge * 0.4} ${edge * 0.5}`}
        />
        {picture.strokes.map((stroke, k) => (
          <path key={k} d={path(stroke)} fill="none" stroke="var(--tube)" strokeWidth={edge} strokeLinejoin="round" />
        ))}
        {picture.cracks.map((crack, k) => (
          <path key={k} d={path(crack)} fill="none" stroke="var(--stop)" strokeWidth={edge * 0.45} />
        ))}
      </svg>
      <Box component="figcaption" sx={{ fontSize: large ? 17 : 14, lineHeight: 1.25, mt: 0.25 }}>
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
