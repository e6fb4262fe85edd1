import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { MadeBend, Move } from "../../api/types";
import { TurnArrow } from "../../ui/TurnArrow";
import { Clock } from "../../ui/Clock";
import { usePlaneSchool } from "../../doc/usePlaneSchool";
import { condensed } from "../../theme/theme";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import { HowItStands } from "./HowItStands";
import { Reading, Readings, readAgain, readOf } from "./Readings";
import type { MakingEditor } from "../../doc/useMaking";
import { feedWords, stopShort } from "./figures";

const figure = { font: `600 clamp(44px, 6.6vw, 76px)/1 ${condensed}` } as const;
const name = { font: `500 22px ${condensed}`, color: "var(--second)" } as const;

/** The readings' form, so that the foot of the screen can send it. */
export const BEND_FORM = "bend-form";

interface Props {
  editor: MakingEditor;
  bend: number;
  done: boolean;
  onDone: () => void;
}

/** One bend: feed, turn, dial, then what came out. */
export function BendStep({ editor, bend, done, onDone }: Props) {
  const { making, standing, reckoning, keep } = editor;
  const unit = making.document.unit;
  const { remade, part } = standing;
  const made = making.state.made.find((item) => item.bend === bend);
  const { school } = usePlaneSchool();
  const move = [...remade.moves, ...remade.told].find((item) => item.bend === bend);
  const next = remade.next;
  const [read, setRead] = useState(readOf(made));
  const span = making.document.spans.find((item) => item.id === making.span);
  const ways = span?.kind === "rigid" ? span.ways : undefined;
  if (!move) return null;
  const isNext = next?.move.bend === bend && !reckoning;
  const old = part.moves.find((item) => item.bend === bend);
  const replanned =
    !made &&
    old !== undefined &&
    (Math.abs(old.angle_deg - move.angle_deg) > 0.05 ||
      Math.abs((old.mark_mm ?? 0) - (move.mark_mm ?? 0)) > 0.3 ||
      Math.abs(old.turn_deg - move.turn_deg) > 0.1);

  const finish = () => {
    if (!next || !isNext) return;
    const entry: MadeBend = {
      bend,
      held: move.held,
      start_mm: next.start_mm,
      angle_deg: next.angle_deg,
      clock_deg: next.clock_deg,
      beyond_deg: next.beyond_deg,
      dial_deg: move.dial_deg,
      ...read,
      plane_by: school,
      unit,
      sure: [],
    };
    keep((state) => ({
      ...state,
      made: [...state.made.filter((item) => item.bend !== bend), entry],
      done: [...state.done, `bend-${bend}`],
    }));
    onDone();
  };
  const correct = () => {
    keep((state) => ({
      ...state,
      made: state.made.map((item) => (item.bend === bend ? readAgain(item, read, school, unit) : item)),
    }));
    onDone();
  };
  const last = making.state.made.at(-1)?.bend === bend;
  const undo = () =>
    keep((state) => ({
      ...state,
      made: state.made.filter((item) => item.bend !== bend),
      done: state.done.filter((item) => item !== `bend-${bend}`),
    }));

  return (
    <>
      {reckoning ? (
        <Box role="status" sx={{ mt: 1.5, fontSize: 22 }}>
          Reckoning the rest…
        </Box>
      ) : (
        <HowItStands editor={editor} />
      )}
      <Box
        aria-busy={reckoning}
        sx={{
          opacity: reckoning ? 0.3 : 1,
          display: "grid",
          gridTemplateColumns: "repeat(auto-fit, minmax(250px, 1fr))",
          columnGap: 3,
          rowGap: 2,
          mt: 1.5,
        }}
      >
        <Box>
          <Box sx={name}>
            {replanned ? "new mark" : "mark"},{" "}
            {move.measured_from === "flared_rim" ? "from the rim" : "from the cut end"} at {move.held}
          </Box>
          <Box sx={figure} data-figure="mark">
            {move.mark_mm == null ? "none" : sayLength(move.mark_mm, unit)}
          </Box>
          {move.feed_mm != null && <Box sx={{ fontSize: 20 }}>{feedWords(move.feed_mm, unit)}</Box>}
        </Box>
        <Box>
          <Box sx={name}>turn the tube</Box>
          <TurnFigure move={move} />
          <Box sx={{ display: "flex", alignItems: "center", gap: 1, fontSize: 20 }}>
            <svg width="40" height="40" viewBox="-20 -20 40 40" aria-hidden>
              <Clock x={0} y={0} r={18} degrees={move.clock_deg} />
            </svg>
            lies at {sayClock(move.clock_deg)} from A
          </Box>
        </Box>
        <Box>
          <Box sx={name}>bend to, on the dial</Box>
          <Box sx={figure} data-figure="dial">
            {sayAngle(move.dial_deg)}
          </Box>
          <Box sx={{ fontSize: 20 }}>
            for {sayAngle(move.angle_deg)} when let go
            {move.finish_deg != null && `; left open, ${sayAngle(move.finish_deg)} in its place`}
          </Box>
        </Box>
      </Box>
      {isNext && !made && ways?.plane_first && (
        <Box sx={{ mt: 1.5, fontSize: 22 }}>
          Before you pull: read where it lies with the gauge; it must show {sayClock(move.clock_deg)} from A (
          {sayAngle(((move.clock_deg % 360) + 360) % 360)}). Turn it until it does.
        </Box>
      )}
      {isNext && !made && ways?.bend_short && (
        <BendShort dial={move.dial_deg} angle={move.angle_deg} by={remade.short_deg} />
      )}
      {(isNext || made) && (
        <Box
          component="form"
          id={BEND_FORM}
          onSubmit={(event) => {
            event.preventDefault();
            if (made) correct();
            else finish();
          }}
          sx={{ mt: 2, pt: 1.5, borderTop: "1px solid var(--rule)" }}
        >
          <Readings
            bend={bend}
            read={read}
            setRead={setRead}
            unit={unit}
            expected={made ?? next ?? move}
            leg_mm={isNext ? next.leg_mm : (remade.legs_mm[made ? making.state.made.indexOf(made) : -1] ?? null)}
            first={(isNext && !made && making.state.made.length === 0) || making.state.made[0] === made}
            editor={editor}
          />
          {made && last && (
            <Button onClick={undo} sx={{ mt: 2, minHeight: 56, fontSize: 20, px: 3 }}>
              Not bent after all
            </Button>
          )}
        </Box>
      )}
      {!isNext && !made && !done && !reckoning && (
        <Box sx={{ mt: 3, fontSize: 22, color: "var(--second)" }}>Bend {next?.move.bend} comes first.</Box>
      )}
    </>
  );
}

/** Stop short, let go, read, and pull what is missing: the tube itself then says what it springs back. */
function BendShort({ dial, angle, by }: { dial: number; angle: number; by: number }) {
  const [reads, setReads] = useState("");
  const stop = stopShort(dial, angle, by, reads);
  return (
    <Box sx={{ mt: 1.5, display: "flex", gap: 2, flexWrap: "wrap", alignItems: "end", fontSize: 22 }}>
      <Box>
        First to <b data-figure="short">{sayAngle(stop.first_deg)}</b> on the dial, let go and read.
      </Box>
      <Box sx={{ width: 220 }}>
        <Reading
          label="It reads"
          worth=""
          holder={sayAngle(stop.shows_deg)}
          takes="angle"
          text={reads}
          problem={undefined}
          first={false}
          onText={(text) => setReads(text.slice(0, 12))}
        />
      </Box>
      {(stop.there || stop.on_deg !== null) && (
        <Box role="status" sx={{ fontWeight: 600 }}>
          {stop.on_deg === null
            ? "It is there already; note what it reads."
            : `Now on to ${sayAngle(stop.on_deg)} on the dial.`}
        </Box>
      )}
    </Box>
  );
}

function TurnFigure({ move }: { move: Move }) {
  const words = move.turn_words.split(", end")[0] ?? "";
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        font: `600 clamp(30px, 4vw, 44px)/1.05 ${condensed}`,
        minHeight: 76,
      }}
    >
      <Box sx={{ transform: "scale(1.8)", transformOrigin: "left center", mr: 3, flexShrink: 0 }}>
        <TurnArrow degrees={move.turn_deg} />
      </Box>
      {words}
    </Box>
  );
}
