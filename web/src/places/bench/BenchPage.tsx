import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useLayoutEffect, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { KeyHelp } from "../../ui/KeyHelp";
import { NotHere } from "../../ui/NotHere";
import { condensed } from "../../theme/theme";
import { BenchHead } from "./BenchHead";
import { BEND_FORM, BendStep } from "./BendStep";
import { Cautions } from "../../ui/Cautions";
import { Compare } from "./Compare";
import { Finish } from "./Finish";
import { Flared } from "./Flared";
import { Gap } from "./Gap";
import { HowItStands } from "./HowItStands";
import { big } from "./sizes";
import { minutesOf, running, toggled } from "../../doc/spells";
import type { MakingEditor } from "../../doc/useMaking";
import { useMaking } from "../../doc/useMaking";
import { TrialFit } from "../../workspace/fitting/TrialFit";

const KINDS: Record<string, string> = {
  prove: "Prove the nuts",
  straighten: "Straighten",
  cut: "Cut",
  nuts: "Nuts on",
  flare: "Flare",
  mark: "Mark",
  bend: "Bend",
  fit: "Trial fit",
  trim: "Trim",
  blow: "Blow through",
  braze: "Braze",
  form: "Finish the end",
  "old tube": "The old tube",
  gap: "The gap",
};

/** Bench mode: one step a screen, to read at two metres and to work with one gloved hand. */
export default function BenchPage() {
  const { lineId = "" } = useParams();
  const [asked] = useSearchParams();
  const span = asked.get("tube") ?? "";
  const { editor, problem } = useMaking(lineId, span);
  if (problem) return <NotHere text={problem} />;
  return editor ? <Steps editor={editor} lineId={lineId} /> : null;
}

function Steps({ editor, lineId }: { editor: MakingEditor; lineId: string }) {
  const { making, standing, reckoning, keep } = editor;
  const { steps, remade } = standing;
  const done = new Set(making.state.done);
  const first = steps.findIndex((step) => !done.has(step.id));
  const [at, setAt] = useState<number | null>(null);
  const [comparing, setComparing] = useState(false);
  const [now, setNow] = useState(Date.now());
  const navigate = useNavigate();
  const ended = making.ended_at !== null;
  // a reading that cannot be read, or that stands alone, is put right before the next bend is made by it
  const misread = reckoning || ended ? undefined : (remade.misread[0] ?? remade.lone[0]);
  const astray = misread && making.state.made[misread.index]?.bend;
  const held = astray === undefined ? -1 : steps.findIndex((item) => item.bend === astray);
  const index = at ?? (held >= 0 ? held : first < 0 ? steps.length : first);
  const step = steps[index];

  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 15_000);
    return () => window.clearInterval(timer);
  }, []);

  const tick = (key: string) => {
    keep((state) => ({ ...state, done: [...state.done.filter((item) => item !== key), key] }));
    setAt(null);
  };
  const untick = (key: string) => keep((state) => ({ ...state, done: state.done.filter((item) => item !== key) }));
  const go = (to: number) => setAt(Math.max(0, Math.min(steps.length, to)));

  // before it is painted: a key pressed as soon as the step is seen counts
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("[role='dialog']")) return;
      if (target.closest("input, textarea, select")) {
        // a reading that is half typed is not lost by leaving
        if (event.key === "Escape") target.blur();
        return;
      }
      if (event.key === "Escape") void navigate(`/lines/${lineId}/make`);
      else if (event.key === "ArrowRight") go(index + 1);
      else if (event.key === "ArrowLeft") go(index - 1);
      else if (event.key.toLowerCase() === "t" && !ended) keep(toggled);
      else if (event.key === "Enter" && !target.closest("button, a") && step && step.bend == null && !ended)
        tick(step.id);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  const minutes = minutesOf(making.state, now);
  return (
    <Box
      sx={{
        height: "100dvh",
        display: "grid",
        gridTemplateRows: "auto auto minmax(0, 1fr) auto",
        background: "var(--paper)",
      }}
    >
      <BenchHead
        leave={<Link to={`/lines/${lineId}/make`}>Leave the bench</Link>}
        title={making.document.name}
        help={<KeyHelp />}
      >
        <Box sx={{ font: `600 24px ${condensed}` }}>{minutes} min</Box>
        {!ended && (
          <Button
            onClick={() => keep(toggled)}
            aria-keyshortcuts="t"
            sx={{
              minHeight: 48,
              minWidth: 140,
              fontSize: 20,
              ...(running(making.state) ? { background: "var(--ink)", color: "var(--paper)" } : {}),
            }}
          >
            {running(making.state) ? "Stop the time" : "Start the time"}
          </Button>
        )}
      </BenchHead>
      <Box
        component="ol"
        aria-label="Steps"
        sx={{
          m: 0,
          p: 0,
          px: 1,
          listStyle: "none",
          display: "flex",
          overflowX: "auto",
          borderBottom: "1px solid var(--rule)",
        }}
      >
        {steps.map((item, k) => (
          <li key={item.id}>
            <Box
              component="button"
              onClick={() => go(k)}
              aria-current={k === index ? "step" : undefined}
              aria-label={`${k + 1}, ${item.bend != null ? item.text : (KINDS[item.kind] ?? item.kind)}${done.has(item.id) ? ", done" : ""}`}
              sx={{
                all: "unset",
                boxSizing: "border-box",
                cursor: "pointer",
                minWidth: 44,
                minHeight: 44,
                display: "grid",
                placeContent: "center",
                font: `600 18px ${condensed}`,
                color: k === index ? "var(--paper)" : done.has(item.id) ? "var(--good)" : "var(--second)",
                background: k === index ? "var(--ink)" : "transparent",
                "&:focus-visible": { outline: "3px solid var(--action)", outlineOffset: -3 },
              }}
            >
              {done.has(item.id) ? "✓" : k + 1}
            </Box>
          </li>
        ))}
      </Box>
      <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 1180, width: "100%", mx: "auto", overflow: "auto" }}>
        {editor.message && (
          <Box role="alert" sx={{ color: "var(--stop)", fontSize: 20, mb: 2 }}>
            {editor.message}
          </Box>
        )}
        {comparing ? (
          <Compare editor={editor} onClose={() => setComparing(false)} />
        ) : step ? (
          <>
            <Box sx={{ font: `500 24px ${condensed}`, color: "var(--second)" }}>
              {index + 1} of {steps.length}
            </Box>
            <Box component="h2" sx={{ m: 0, font: `600 clamp(40px, 6vw, 64px)/1.05 ${condensed}` }}>
              {step.bend != null ? step.text : (KINDS[step.kind] ?? step.kind)}
            </Box>
            <Cautions texts={step.cautions} large />
            {step.bend != null ? (
              <BendStep
                key={step.id}
                editor={editor}
                bend={step.bend}
                done={done.has(step.id)}
                onDone={() => setAt(null)}
              />
            ) : (
              <>
                <Box sx={{ fontSize: "clamp(24px, 3.4vw, 38px)", lineHeight: 1.25, mt: 2 }}>{step.text}</Box>
                {step.kind === "flare" && step.flaring && (
                  <Flared key={step.id} editor={editor} flaring={step.flaring} />
                )}
                {step.kind === "gap" && <Gap key={step.id} editor={editor} />}
                {step.kind === "fit" && <TrialFit editor={editor} large />}
                {(step.kind === "fit" || step.kind === "trim") && !reckoning && <HowItStands editor={editor} />}
                {step.why && <Box sx={{ fontSize: 22, color: "var(--second)", mt: 2 }}>{step.why}</Box>}
              </>
            )}
          </>
        ) : (
          <Finish editor={editor} minutes={minutes} lineId={lineId} />
        )}
      </Box>
      <Box
        component="footer"
        sx={{
          display: "flex",
          gap: 1.5,
          p: 1.5,
          borderTop: "2px solid var(--ink)",
          background: "var(--paper)",
          flexWrap: "wrap",
        }}
      >
        <Button sx={big} onClick={() => go(index - 1)} disabled={index === 0 || comparing}>
          Back
        </Button>
        {step && step.bend == null && !comparing && !ended && (
          <Button
            sx={{ ...big, flex: 1, minWidth: 200 }}
            variant="contained"
            color="secondary"
            onClick={() => (done.has(step.id) ? untick(step.id) : tick(step.id))}
          >
            {done.has(step.id) ? "Not done after all" : "Done"}
          </Button>
        )}
        {step?.bend != null &&
          !comparing &&
          !ended &&
          !reckoning &&
          (remade.next?.move.bend === step.bend || done.has(step.id)) && (
            <Button
              type="submit"
              form={BEND_FORM}
              sx={{ ...big, flex: 1, minWidth: 200 }}
              variant="contained"
              color="secondary"
            >
              {done.has(step.id) ? "Keep these readings" : "Bent"}
            </Button>
          )}
        {(!step || ended || comparing) && <Box sx={{ flex: 1 }} />}
        {(remade.departures.length > 0 || !step) && (
          <Button sx={big} onClick={() => setComparing(!comparing)}>
            {comparing ? "Back to the step" : "Compare with the plan"}
          </Button>
        )}
        <Button sx={big} onClick={() => go(index + 1)} disabled={!step || comparing}>
          Next
        </Button>
      </Box>
    </Box>
  );
}
