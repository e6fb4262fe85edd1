import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Closing, JointStanding, LineJoint, Unit, Step } from "../../api/types";
import { shownDone, togetherWith } from "../../doc/closingSteps";
import { tickOf, ticked, withJoint, workAt } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { asNoted } from "../../doc/who";
import { sayTorque } from "../../format/units";
import { condensed } from "../../theme/theme";
import { Typed } from "../../ui/Entry";
import { HowToFlare } from "../../ui/FlareGuide";
import { SourceLine } from "../../ui/Working";

interface Props {
  editor: LineEditor;
  closing: Closing;
  group: Step["kind"];
  title: string;
  /** What stands under a step that asks for more than a tick. */
  under?: (step: Step) => ReactNode;
}

/** One group of steps in their order, each ticked by itself; what a joint needs stands at its step. */
export function StepList({ editor, closing, group, title, under }: Props) {
  const steps = closing.steps.filter((step) => step.kind === group && step.does !== "looks");
  if (steps.length === 0) return null;
  const done = shownDone(editor.document, closing);
  const first = steps.find((step) => !done.has(step.id));
  const alike = first ? togetherWith(closing, first, done) : [];
  return (
    <Box component="section" aria-label={title} sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, mb: 0.25, font: `600 18px ${condensed}` }}>
        {title}
        <Box component="span" sx={{ color: "var(--second)", fontWeight: 400, ml: 1 }}>
          {steps.filter((step) => done.has(step.id)).length} of {steps.length}
        </Box>
      </Box>
      {alike.length > 1 && (
        <Button
          size="small"
          variant="contained"
          color="secondary"
          sx={{ my: 0.5 }}
          onClick={() => editor.edit((was) => ticked(was, alike, asNoted()))}
        >
          All {alike.length} of these as told
        </Button>
      )}
      {steps.map((step) => (
        <StepRow key={step.id} editor={editor} closing={closing} step={step} done={done.has(step.id)}>
          {under?.(step)}
        </StepRow>
      ))}
    </Box>
  );
}

export const jointOf = (closing: Closing, step: Step): LineJoint | undefined =>
  closing.joints.find((joint) => joint.id === step.joint);

function StepRow({
  editor,
  closing,
  step,
  done,
  children,
}: {
  editor: LineEditor;
  closing: Closing;
  step: Step;
  done: boolean;
  children: ReactNode;
}) {
  const joint = jointOf(closing, step);
  const tick = (on: boolean) => editor.edit((was) => ticked(was, [step.id], on ? asNoted() : null));
  const noted = tickOf(editor.document, step.id);
  return (
    <Box data-step={step.id} data-done={done} sx={{ borderBottom: "1px solid var(--rule)", py: 0.5 }}>
      <Box
        component="label"
        sx={{
          display: "flex",
          gap: 1,
          alignItems: "flex-start",
          cursor: "pointer",
          minHeight: 30,
          "@media (pointer: coarse)": { minHeight: 44 },
        }}
      >
        <input
          type="checkbox"
          checked={done}
          onChange={(event) => tick(event.target.checked)}
          style={{ width: 20, height: 20, flex: "none", marginTop: 2, accentColor: "var(--ink)" }}
        />
        <Box component="span" sx={{ color: done ? "var(--second)" : "var(--ink)" }}>
          {joint && <b>{joint.place}: </b>}
          {step.safety && !done && (
            <Box component="span" sx={{ color: "var(--caution)", fontWeight: 600 }}>
              Safety.{" "}
            </Box>
          )}
          {step.text}
          {noted && (noted.at || noted.by) && (
            <Box component="span" sx={{ display: "block", fontSize: 14, color: "var(--second)" }}>
              {[noted.at.slice(11, 16), noted.by].filter(Boolean).join(" ")}
            </Box>
          )}
          {step.why && (
            <Box component="span" sx={{ display: "block", fontSize: 14, color: "var(--second)" }}>
              {step.why}
            </Box>
          )}
        </Box>
      </Box>
      <Box sx={{ pl: "28px" }}>
        {step.flaring && <HowToFlare flaring={step.flaring} />}
        {joint && step.does === "starts" && <Started editor={editor} closing={closing} joint={joint} />}
        {joint && step.does === "tightens" && step.round === 1 && (
          <Tightened
            editor={editor}
            joint={joint}
            standing={closing.standing.find((one) => one.joint === joint.id)}
            unit={editor.document.unit}
          />
        )}
        {children}
      </Box>
    </Box>
  );
}

/** What is noted only where it was done otherwise than told. */
function Differs({ open, children }: { open: boolean; children: ReactNode }) {
  return (
    <Box
      component="details"
      open={open || undefined}
      sx={{ "& summary": { cursor: "pointer", color: "var(--second)", fontSize: 14 } }}
    >
      <summary>Otherwise than told</summary>
      <Box sx={{ display: "flex", gap: 0.5, alignItems: "center", flexWrap: "wrap", mt: 0.25 }}>{children}</Box>
    </Box>
  );
}

/** What goes on the joint, and how many turns it took by hand. */
function Started({ editor, closing, joint }: { editor: LineEditor; closing: Closing; joint: LineJoint }) {
  const work = workAt(editor.document, joint);
  const standing = closing.standing.find((one) => one.joint === joint.id);
  return (
    <>
      <Box sx={{ fontSize: 14, color: "var(--second)", "&::first-letter": { textTransform: "uppercase" } }}>
        {joint.applied}. {joint.why}
      </Box>
      <Differs open={Boolean(work.turns || work.applied)}>
        {joint.turns !== null && (
          <Typed
            label={`Turns by hand, ${joint.place}`}
            text={work.turns}
            placeholder="turns"
            width={70}
            onText={(turns) => editor.edit((was) => withJoint(was, joint, { turns: turns.slice(0, 24) }))}
          />
        )}
        <Typed
          label={`What went on it, ${joint.place}`}
          text={work.applied}
          placeholder="what went on it"
          width={180}
          onText={(applied) => editor.edit((was) => withJoint(was, joint, { applied: applied.slice(0, 80) }))}
        />
      </Differs>
      {standing?.binds && (
        <Box role="alert" sx={{ color: "var(--stop)", fontWeight: 600, mt: 0.5 }}>
          {standing.binds}
          <Box component="ul" sx={{ m: 0, pl: 2.5, fontWeight: 400 }}>
            {standing.causes.map((cause) => (
              <li key={cause}>{cause}</li>
            ))}
          </Box>
        </Box>
      )}
    </>
  );
}

/** How tight: the manual's or published figure with its source, what to set with the crowfoot, and what was done by whom. */
function Tightened({
  editor,
  joint,
  standing,
  unit,
}: {
  editor: LineEditor;
  joint: LineJoint;
  standing: JointStanding | undefined;
  unit: Unit;
}) {
  const work = workAt(editor.document, joint);
  return (
    <>
      {joint.torque && (
        <Box sx={{ font: `600 17px ${condensed}` }}>
          {sayTorque(joint.torque.least_nm, joint.torque.most_nm, unit)}
          {joint.set_nm && (
            <Box component="span" sx={{ fontWeight: 400, color: "var(--second)", ml: 1 }}>
              crowfoot in line: set {sayTorque(joint.set_nm[0], joint.set_nm[1], unit)}; at a right angle as it is
            </Box>
          )}
        </Box>
      )}
      {joint.torque && <SourceLine source={joint.torque.source} />}
      {standing?.off && (
        <Box sx={{ color: "var(--caution)", fontWeight: 600 }}>
          {work.tight} is {standing.off}.
        </Box>
      )}
      {standing?.problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {standing.problem}
        </Box>
      )}
      <Differs open={Boolean(work.tight || work.aim)}>
        <Typed
          label={`The machine's manual says, ${joint.place}`}
          text={work.aim}
          placeholder="manual's own torque"
          width={170}
          onText={(aim) => editor.edit((was) => withJoint(was, joint, { aim: aim.slice(0, 24) }))}
        />
        <Typed
          label={`How tight it was made, ${joint.place}`}
          text={work.tight}
          placeholder={joint.torque && !joint.by_feel ? "torque set" : "by feel"}
          width={120}
          onText={(tight) => editor.edit((was) => withJoint(was, joint, { tight: tight.slice(0, 80) }))}
        />
      </Differs>
    </>
  );
}
