import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Fit, Tweak, TypedOffer, Unit } from "../../api/types";
import type { MakingEditor } from "../../doc/useMaking";
import { usePlaneSchool } from "../../doc/usePlaneSchool";
import { sayAngle, sayLength } from "../../format/units";
import { condensed } from "../../theme/theme";
import { OfferForm } from "./OfferForm";
import { PortView } from "./PortView";
import { blankOffer, sayAct, sayOffer, sayTweak } from "./offers";

const MOST = 30;

/** The finished part offered to its ports: where the end lies that was not held, what to do about it, and again. */
export function TrialFit({ editor, large }: { editor: MakingEditor; large: boolean }) {
  const { making, standing, reckoning, keep } = editor;
  const { school } = usePlaneSchool();
  const unit = making.document.unit;
  const offers = making.state.offers;
  const bends = making.state.made.length;
  const last = offers.at(-1);
  const { fit, unreadable } = standing.remade;
  const ended = making.ended_at !== null;
  const done = (last?.then ?? []).length > 0;
  const wrong = unreadable.filter((item) => item.index === offers.length - 1);
  const [opened, setOpened] = useState(false);
  if (!fit) return null;
  const asking = offers.length === 0 || done || opened || (fit.again && wrong.length === 0);
  const put = (change: (was: readonly TypedOffer[]) => TypedOffer[]) => {
    setOpened(false);
    keep((state) => ({ ...state, offers: change(state.offers) }));
  };
  const size = large ? 22 : 16;
  return (
    <Box component="section" aria-label="Trial fit" sx={{ mt: 2, fontSize: size }}>
      {(offers.length > 0 || fit.tweaks.length > 0) && !reckoning && wrong.length === 0 && !done && (
        <Answer fit={fit} unit={unit} large={large}>
          {!ended && fit.tweaks.length > 0 && (
            <Button
              variant="contained"
              color="secondary"
              sx={{ minHeight: large ? 64 : 44, fontSize: large ? 22 : 16, mt: 1 }}
              onClick={() =>
                put((was) => {
                  // what bends alone told is done before the part was ever offered
                  const all = was.length > 0 ? was : [blankOffer(unit, school, fit.lands)];
                  return all.map((offer, k) =>
                    k === all.length - 1 ? { ...offer, then: fit.tweaks.map((tweak) => tweak.act) } : offer,
                  );
                })
              }
            >
              Done: offer it again
            </Button>
          )}
        </Answer>
      )}
      {reckoning && <Box role="status">Weighing what was read…</Box>}
      {done && (
        <Box role="status" sx={{ fontWeight: 600 }}>
          Done: {(last?.then ?? []).map(sayAct).join(", ")}. Offer the part again.
        </Box>
      )}
      {!ended && asking && offers.length < MOST && (
        <OfferForm
          key={`new ${offers.length}`}
          start={blankOffer(unit, school, fit.lands)}
          bends={bends}
          wrong={[]}
          large={large}
          text={offers.length === 0 ? "Weigh it" : "Weigh it with the rest"}
          onSave={(offer) => put((was) => [...was, { ...offer, unit, plane_by: school }])}
        />
      )}
      {!ended && wrong.length > 0 && last && (
        <OfferForm
          key={`wrong ${offers.length}`}
          start={last}
          bends={bends}
          wrong={wrong}
          large={large}
          text="Weigh it"
          onSave={(offer) => put((was) => [...was.slice(0, -1), { ...offer, unit, plane_by: school }])}
        />
      )}
      {offers.length > 0 && (
        <Box sx={{ mt: 1.5, borderTop: "1px solid var(--rule)", pt: 1, fontSize: large ? 18 : 14 }}>
          {offers.map((offer, k) => (
            <Box key={k} sx={{ display: "flex", gap: 1.5 }}>
              <Box sx={{ font: `600 ${large ? 20 : 16}px ${condensed}` }}>{k + 1}</Box>
              <Box sx={{ overflowWrap: "anywhere" }}>
                {sayOffer(offer)}
                {offer.then.length > 0 && (
                  <Box sx={{ color: "var(--second)" }}>then {offer.then.map(sayAct).join(", ")}</Box>
                )}
              </Box>
            </Box>
          ))}
          {!ended && (
            <Box sx={{ display: "flex", gap: 1, mt: 0.5, flexWrap: "wrap" }}>
              <Button
                variant="text"
                onClick={() =>
                  put((was) =>
                    done ? was.map((o, k) => (k === was.length - 1 ? { ...o, then: [] } : o)) : was.slice(0, -1),
                  )
                }
              >
                {done ? "It was not done" : "Take the last offer back"}
              </Button>
              {!asking && wrong.length === 0 && offers.length < MOST && (
                <Button variant="text" onClick={() => setOpened(true)}>
                  Offer it again
                </Button>
              )}
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}

interface AnswerProps {
  fit: Fit;
  unit: Unit;
  large: boolean;
  children: React.ReactNode;
}

function Answer({ fit, unit, large, children }: AnswerProps) {
  const { stands } = fit;
  const trim =
    !fit.fits || Math.abs(stands.trim_mm) < 0.3
      ? ""
      : stands.trim_mm > 0
        ? ` Cut ${sayLength(stands.trim_mm, unit)} off at ${fit.lands}.`
        : ` Leave end ${fit.lands} ${sayLength(-stands.trim_mm, unit)} longer than marked.`;
  return (
    <Box
      role="status"
      data-fits={fit.fits}
      sx={{
        borderLeft: "6px solid",
        borderColor: fit.fits ? "var(--good)" : fit.tweaks.length > 0 ? "var(--note)" : "var(--caution)",
        pl: 2,
        mb: 1.5,
      }}
    >
      <Box sx={{ fontWeight: 600 }}>
        {fit.fits ? "It fits: off by" : "Off by"} {sayLength(stands.miss_mm, unit)} ± {sayLength(stands.doubt_mm, unit)}{" "}
        and {sayAngle(stands.miss_deg)} ± {sayAngle(stands.doubt_deg)}, rolled to its best.{trim}
      </Box>
      {!fit.fits && fit.tweaks.length === 0 && (
        <Box>
          {fit.again
            ? "Too near to tell: offer it and read it once more before anything is bent."
            : "Another tweak would not help surely. The ways on stand below."}
        </Box>
      )}
      {fit.tweaks.length > 0 && (
        <Box sx={{ display: "flex", gap: 3, flexWrap: "wrap", mt: 1, alignItems: "center" }}>
          <PortView
            unit={unit}
            offMm={stands.miss_mm}
            offClock={stands.towards_clock_deg}
            tweaks={fit.tweaks}
            lands={fit.lands}
          />
          <Box sx={{ flex: 1, minWidth: 240 }}>
            {fit.tweaks.map((tweak, k) => (
              <Told
                key={`${tweak.act.kind} ${tweak.act.at}`}
                tweak={tweak}
                lands={fit.lands}
                number={fit.tweaks.length > 1 ? k + 1 : 0}
                unit={unit}
                large={large}
              />
            ))}
            {children}
          </Box>
        </Box>
      )}
    </Box>
  );
}

interface ToldProps {
  tweak: Tweak;
  lands: TypedOffer["lands"];
  number: number;
  unit: Unit;
  large: boolean;
}

function Told({ tweak, lands, number, unit, large }: ToldProps) {
  const said = sayTweak(tweak, unit, lands);
  return (
    <Box data-tweak={`${tweak.act.kind} ${tweak.act.at}`} sx={{ mb: 1 }}>
      <Box sx={{ font: `600 ${large ? 34 : 22}px/1.1 ${condensed}` }}>
        {number > 0 && `${number}. `}
        {said.title}
      </Box>
      {tweak.pull ? (
        <Box>
          Out with the part; bend {tweak.act.at} back into its tool at its own mark. Close the tool until it just takes
          the bend, then <b>{sayAngle(tweak.pull.beyond_deg)} further</b> (about {sayAngle(tweak.pull.dial_deg)} on the
          dial); in again. It gains {said.degrees}.
        </Box>
      ) : (
        <Box>
          {said.hold}, <b>{said.until}</b> ({said.degrees}); then roll the part to its best again.
        </Box>
      )}
      <Box sx={{ color: "var(--second)", fontSize: large ? 18 : 14 }}>
        leaves {sayLength(tweak.leaves_mm, unit)} ± {sayLength(tweak.doubt_mm, unit)} and {sayAngle(tweak.leaves_deg)} ±{" "}
        {sayAngle(tweak.doubt_deg)}
      </Box>
    </Box>
  );
}
