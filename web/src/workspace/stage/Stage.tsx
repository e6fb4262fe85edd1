import Box from "@mui/material/Box";
import { memo, useCallback, useMemo, useState } from "react";
import type { Line, ViewName } from "../../api/types";
import { isCopied } from "../../doc/rows";
import { useSelection } from "../../doc/select";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { Segments } from "../../ui/Segments";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import { figureOf } from "./figure";
import { Drawing } from "./Drawing";
import { Scene } from "./Scene";
import { hasWebGL } from "./webgl";

const VIEWS: ViewName[] = ["from A", "from B", "above", "free"];

/** The line in space, to true proportion; a drawing from the core stands in without WebGL. */
function Stage({ document: line, view }: { document: Line; view: PlanView }) {
  const [looking, setLooking] = useState<ViewName>("free");
  const { bend } = useSelection();
  const { drawn: part, drawnFrom, growing } = view;
  const figure = useMemo(() => figureOf(part, drawnFrom, line, growing), [part, drawnFrom, line, growing]);
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
  const copied = isCopied(line, view.piece?.span ?? "");
  const chosen = part && bend !== null ? part.bends[bend - 1] : undefined;
  return (
    <Box sx={{ position: "relative", height: "100%", minHeight: 180, overflow: "hidden" }} data-webgl={webgl}>
      {figure ? (
        <Box sx={{ position: "absolute", inset: 0, opacity: old ? 0.4 : 1 }}>
          {webgl ? (
            <Scene figure={figure} ends={ends} looking={looking} onLost={onLost} />
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
          Type the legs, bends and planes as you read them off the old line, end A first. The line appears here from the
          first leg on.
        </Box>
      )}
      {figure && (
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
        {copied && !old && "drawn straight: its bends are copied alongside, not read"}
        {growing && "drawn as far as it has been read; it goes on from here"}
        {old && "drawn as it was before the reading that cannot be read"}
        {!old && !growing && !chosen && figure?.others.some((one) => one.what === "hose" && one.guessed)
          ? "hoses are drawn straight on: how they lie is not known"
          : ""}
        {!old &&
          !growing &&
          chosen &&
          `bend ${chosen.number} · ${sayAngle(chosen.angle_deg)} · ${sayClock(chosen.clock_deg)} from A · radius ${sayLength(chosen.radius_mm, line.unit)}`}
      </Box>
    </Box>
  );
}

export default memo(Stage);
