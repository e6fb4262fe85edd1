import Box from "@mui/material/Box";
import { memo, useCallback, useMemo, useState } from "react";
import type { Line, Part, Plan, ViewName } from "../../api/types";
import { isCopied, mainTube } from "../../doc/rows";
import { useSelection } from "../../doc/select";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { Segments } from "../../ui/Segments";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import { Drawing } from "./Drawing";
import { hasWebGL } from "./webgl";
import { fetched } from "../../ui/fetched";

// three dimensions are half of all that is loaded: only where they can be drawn
const Scene = fetched(() => import("./Scene"));

const VIEWS: ViewName[] = ["from A", "from B", "above", "free"];

/** What is typed first. */
const FIRST = {
  bends:
    "Type the legs, bends and planes as you read them off the old line, end A first. The line appears here from the first leg on.",
  corners:
    "Type the points of its middle as they stand in your datum, end A first: one at each end, one at every corner. The line appears here from the second on.",
};

/** The line in space, to true proportion; a drawing from the core stands in without WebGL. */
export const Stage = memo(function Stage({ document: line, view }: { document: Line; view: PlanView }) {
  const [looking, setLooking] = useState<ViewName>("free");
  const { bend } = useSelection();
  const { drawn: part, drawnFrom, growing } = view;
  const shown = part !== null || (drawnFrom?.in_space?.spans.length ?? 0) > 0;
  const old = view.old && !growing;
  const [lost, setLost] = useState(false);
  const webgl = useMemo(hasWebGL, []) && !lost;
  const onLost = useCallback(() => setLost(true), []);
  const [a, b] = [line.port_a, line.port_b];
  const ends = useMemo(
    () => ({
      A: { label: a.label, thread: a.thread },
      B: { label: b.label, thread: b.thread },
    }),
    [a.label, a.thread, b.label, b.thread],
  );
  const readings = mainTube(line)?.readings.kind ?? "bends";
  const copied = isCopied(line, view.piece?.span ?? "");
  const chosen = part && bend !== null ? part.bends[bend - 1] : undefined;
  return (
    <Box sx={{ position: "relative", height: "100%", minHeight: 180, overflow: "hidden" }} data-webgl={webgl}>
      {shown ? (
        <Box sx={{ position: "absolute", inset: 0, opacity: old ? 0.4 : 1 }}>
          {webgl ? (
            <Scene
              drawn={part}
              from={drawnFrom}
              line={line}
              open={growing}
              ends={ends}
              looking={looking}
              onLost={onLost}
            />
          ) : (
            <Drawing document={line} tube={part?.span ?? ""} old={old} looking={looking} />
          )}
        </Box>
      ) : (
        <Box
          sx={{
            height: "100%",
            display: "grid",
            placeContent: "center",
            p: 4,
            maxWidth: 460,
            mx: "auto",
            color: "var(--second)",
            fontSize: 17,
          }}
        >
          {/* before the first answer nobody knows whether anything has been read */}
          {view.plan && FIRST[readings]}
        </Box>
      )}
      {shown && (
        <Box data-over-stage sx={{ position: "absolute", top: 12, right: 12, background: "var(--sheet)" }}>
          <Segments
            label="Look"
            value={looking}
            options={VIEWS.map((value) => ({ value, text: value }))}
            onChange={setLooking}
          />
        </Box>
      )}
      <Box
        aria-live="polite"
        sx={{
          position: "absolute",
          left: 16,
          bottom: 12,
          fontFamily: condensed,
          fontWeight: 500,
          fontSize: 16,
          color: "var(--ink)",
          background: "var(--sheet)",
          px: 0.5,
        }}
      >
        {copied && !old && "drawn straight: its bends are not read"}
        {growing && "drawn as far as it has been read; it goes on from here"}
        {old && "drawn as it was before the reading that cannot be read"}
        {!old && !growing && !chosen && guessedHose(line, part, drawnFrom)
          ? "a hose is drawn straight on while nobody has said how it lies"
          : ""}
        {!old &&
          !growing &&
          chosen &&
          `bend ${chosen.number} · ${sayAngle(chosen.angle_deg)} · ${sayClock(chosen.clock_deg)} from A · radius ${sayLength(chosen.radius_mm, line.unit)}`}
      </Box>
    </Box>
  );
});

/** Whether a hose of the line in space lies there as nobody knows. */
const guessedHose = (line: Line, drawn: Part | null, from: Plan | null): boolean => {
  const placed = from?.in_space?.spans ?? [];
  if (drawn && !placed.some((one) => one.span === drawn.span)) return false;
  return placed.some((one) => one.guessed && line.spans.some((span) => span.id === one.span && span.kind === "hose"));
};
