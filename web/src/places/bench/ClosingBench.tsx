import Box from "@mui/material/Box";
import { useState } from "react";
import { useParams } from "react-router";
import type { Closing, OpenLine, Step } from "../../api/types";
import { left, seen, ticked, withProving } from "../../doc/proving";
import { SelectionProvider } from "../../doc/select";
import { useClosing } from "../../doc/useClosing";
import type { LineEditor } from "../../doc/useLine";
import { useLine } from "../../doc/useLine";
import { actsOf } from "../../doc/watching";
import { asNoted } from "../../doc/who";
import { sayTorque } from "../../format/units";
import { condensed } from "../../theme/theme";
import { Cautions } from "../../ui/Cautions";
import { NotHere } from "../../ui/NotHere";
import { useNow } from "../../ui/useNow";
import { FillLog } from "../../workspace/closing/FillLog";
import { shownDone, togetherWith } from "../../doc/closingSteps";
import { sayState } from "../../workspace/closing/useShownJoints";
import { JointWatch } from "./JointWatch";
import { StepFrame, headline } from "./StepFrame";
import { useBenchLine } from "./useBenchLine";

/** Fitting or proving a line at the bench: one step a screen. */
export default function ClosingBench() {
  const { lineId = "", stage = "fit" } = useParams();
  const { line, problem } = useBenchLine(lineId, "closing at the bench");
  if (problem) return <NotHere text={problem} />;
  if (!line) return null;
  if (stage !== "fit" && stage !== "prove") return <NotHere text={`There is no bench for “${stage}”.`} />;
  return (
    <SelectionProvider>
      <Steps key={stage} first={line} stage={stage} />
    </SelectionProvider>
  );
}

function Steps({ first, stage }: { first: OpenLine; stage: "fit" | "prove" }) {
  const kept = useLine(first);
  const editor: LineEditor = { ...kept, tube: "" };
  const { closing, problem } = useClosing(editor.document, first.id);
  const steps = closing?.steps.filter((step) => step.stage === stage) ?? [];
  const done = closing ? shownDone(editor.document, closing) : new Set<string>();
  const open = steps.findIndex((step) => !done.has(step.id));
  const [at, setAt] = useState<number | null>(null);
  const index = Math.min(at ?? (open < 0 ? steps.length : open), steps.length);
  const step = steps[index];
  const go = (to: number) => setAt(Math.max(0, Math.min(steps.length, to)));
  const now = useNow(closing?.standing.some((one) => one.state === "drying") ?? false);
  const turn = (one: Step) => {
    const on = !done.has(one.id);
    const noted = asNoted();
    editor.edit((was) =>
      one.kind === "works"
        ? withProving(was, ({ checks }) => ({
            checks: [
              ...checks.filter((check) => check.step !== one.run),
              { step: one.run, works: on ? "yes" : "", value: "", note: "", ...noted },
            ],
          }))
        : ticked(was, [one.id], on ? noted : null),
    );
    if (on) setAt(index + 1);
  };
  const joint = closing?.joints.find((one) => one.id === step?.joint);
  const next = closing && joint && step?.does === "looks" ? actsOf(closing, joint, now).next : null;
  /** What the large button does with a step, and its word. */
  const turnOf = (one: Step) => {
    if (one.does === "holds") return null;
    if (one.does === "looks" && done.has(one.id)) return { word: "Next", act: () => go(index + 1) };
    if (one.does === "looks")
      return next && joint
        ? { word: next.word, act: () => editor.edit((was) => seen(was, [joint], next.what, asNoted())) }
        : null;
    const word = one.kind === "works" ? "It works" : "Done";
    return { word: done.has(one.id) ? "Not done after all" : word, act: () => turn(one) };
  };
  const alike = step && closing ? togetherWith(closing, step, done) : [];
  const turnAll = () => {
    editor.edit((was) => ticked(was, alike, asNoted()));
    setAt(null);
  };
  return (
    <StepFrame
      title={`${editor.document.name}, ${stage}`}
      back={`/lines/${first.id}/${stage}`}
      flush={editor.flush}
      index={index}
      count={steps.length}
      go={go}
      turn={step ? turnOf(step) : null}
      all={alike.length > 1 ? { word: `All ${alike.length} of these as told`, act: turnAll } : null}
    >
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", fontSize: 24 }}>
          {problem}
        </Box>
      )}
      {closing && step && (
        <>
          <Box sx={{ font: `500 24px ${condensed}`, color: "var(--second)" }}>
            {index + 1} of {steps.length}
            {done.has(step.id) ? ", done" : ""}
            {step.safety ? ", safety" : ""}
          </Box>
          {index === 0 && <Cautions large texts={closing.cautions[stage] ?? []} />}
          <OneStep editor={editor} closing={closing} step={step} now={now} />
        </>
      )}
      {closing && !step && <AllDone closing={closing} stage={stage} open={open >= 0} />}
    </StepFrame>
  );
}

function OneStep({ editor, closing, step, now }: { editor: LineEditor; closing: Closing; step: Step; now: Date }) {
  const joint = closing.joints.find((one) => one.id === step.joint);
  const { unit } = editor.document;
  return (
    <>
      {joint && <Box sx={{ font: `600 30px ${condensed}`, color: "var(--action)", mt: 1 }}>{joint.place}</Box>}
      <Box component="h2" sx={headline}>
        {step.text}
      </Box>
      {joint && step.does === "tightens" && step.round === 1 && joint.torque && (
        <Box sx={{ font: `600 44px ${condensed}`, mt: 2 }}>
          {sayTorque(joint.torque.least_nm, joint.torque.most_nm, unit)}
          <Box sx={{ font: `400 24px ${condensed}`, color: "var(--second)" }}>
            {joint.set_nm && `Crowfoot in line: set ${sayTorque(joint.set_nm[0], joint.set_nm[1], unit)}. `}
            {joint.torque.source.kind}: {joint.torque.source.text}
          </Box>
        </Box>
      )}
      {joint && step.does === "starts" && (
        <Box sx={{ fontSize: 24, mt: 2, "&::first-letter": { textTransform: "uppercase" } }}>
          {joint.applied}.{" "}
          <Box component="span" sx={{ color: "var(--second)" }}>
            {joint.why}
          </Box>
        </Box>
      )}
      {step.why && <Box sx={{ fontSize: 24, color: "var(--second)", mt: 2 }}>{step.why}</Box>}
      {step.asks.length > 0 && step.kind !== "works" && (
        <Box sx={{ mt: 2, "& input, & select": { fontSize: 24, minHeight: 56 }, "& button": { fontSize: 22 } }}>
          <FillLog editor={editor} closing={closing} step={step} />
        </Box>
      )}
      {joint && step.does === "looks" && <JointWatch editor={editor} closing={closing} joint={joint} now={now} />}
      {step.does === "holds" && (
        <Box sx={{ fontSize: 24, mt: 2 }}>
          {closing.hold?.said} {closing.hold?.danger} Gauge, readings and verdict stand in the stage Prove.
        </Box>
      )}
    </>
  );
}

function AllDone({ closing, stage, open }: { closing: Closing; stage: "fit" | "prove"; open: boolean }) {
  const waits = closing.standing.filter((one) => one.state === "drying");
  const now = useNow(waits.length > 0);
  return (
    <>
      <Box component="h2" sx={headline}>
        {open ? "Some steps are still open." : stage === "fit" ? "It is in. Now prove it." : "All of it is done."}
      </Box>
      {waits.map((one) => (
        <Box key={one.joint} sx={{ fontSize: 28, mt: 1 }}>
          {closing.joints.find((joint) => joint.id === one.joint)?.place}: {sayState(closing, one.state)}{" "}
          {left(one.until, now)}
        </Box>
      ))}
    </>
  );
}
