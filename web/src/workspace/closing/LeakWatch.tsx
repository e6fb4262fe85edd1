import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef } from "react";
import type { Closing, LineJoint, Plan } from "../../api/types";
import { left, seen, unseen, workAt } from "../../doc/proving";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { Act, Standing } from "../../doc/watching";
import { actsOf, standsAt } from "../../doc/watching";
import { asNoted } from "../../doc/who";
import { condensed } from "../../theme/theme";
import { useNow } from "../../ui/useNow";
import { OtherClamp } from "./OtherClamp";
import { useCall } from "./useCall";
import { sayState } from "./useShownJoints";

const FIRST: Record<Standing, number> = { wet: 0, look: 1, drying: 2, mended: 3, tight: 4, open: 5, dry: 6 };
const INK: Partial<Record<Standing, string>> = { wet: "var(--stop)", dry: "var(--good)", look: "var(--caution)" };
/** Joints of these states are spoken of together: what never was tightened, and what is wet, is said one by one. */
const TOGETHER: readonly Standing[] = ["tight", "mended", "drying", "look", "dry"];

/** What can be said of several joints at once, each with the joints it is said of. */
function together(closing: Closing, now: Date): { act: Act; joints: LineJoint[] }[] {
  const found = new Map<string, { act: Act; joints: LineJoint[] }>();
  for (const joint of closing.joints) {
    const one = closing.standing.find((standing) => standing.joint === joint.id);
    const { next } = actsOf(closing, joint, now);
    if (!next || !TOGETHER.includes(standsAt(one, now))) continue;
    const others = found.get(next.word) ?? { act: next, joints: [] };
    found.set(next.word, { ...others, joints: [...others.joints, joint] });
  }
  return [...found.values()].filter(({ joints }) => joints.length > 1);
}

/** Every joint: looked at as what it carries asks for, all of them with one press or each by itself; a wait counts
 * down and calls; one that leaks leads its own ladder. */
export function LeakWatch({ editor, closing, plan }: { editor: LineEditor; closing: Closing; plan: Plan | null }) {
  const { watch } = closing;
  const now = useNow(closing.standing.some((one) => one.state === "drying"));
  const standing = (joint: LineJoint) => closing.standing.find((one) => one.joint === joint.id);
  const stateOf = (joint: LineJoint) => standsAt(standing(joint), now);
  const wet = closing.joints.filter((joint) => stateOf(joint) === "wet").length;
  const over = closing.joints.filter((joint) => stateOf(joint) === "look").length;
  useCall(over);
  // of several wet ones the highest comes first, where it is known how high they stand
  const sorted = [...closing.joints].sort(
    (a, b) => FIRST[stateOf(a)] - FIRST[stateOf(b)] || (b.height_mm ?? -1e6) - (a.height_mm ?? -1e6),
  );
  return (
    <Box component="section" aria-label="Leak watch" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Every joint
      </Box>
      <Box sx={{ color: "var(--second)", fontSize: 14 }}>
        {wet > 1 && watch.begin
          ? "Several are wet: the highest one first, the rest may only have run down from it."
          : watch.lead}
      </Box>
      {over > 0 && (
        <Box role="alert" sx={{ color: "var(--caution)", fontWeight: 600, mt: 0.5 }}>
          The wait is over: look at {over === 1 ? "the joint" : `${over} joints`} now.
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 0.75, flexWrap: "wrap", my: 0.5 }}>
        {together(closing, now).map(({ act, joints }) => (
          <Button
            key={act.word}
            size="small"
            variant="contained"
            color="secondary"
            onClick={() => editor.edit((was) => seen(was, joints, act.what, asNoted()))}
          >
            All {joints.length}: {act.word}
          </Button>
        ))}
      </Box>
      {sorted.map((joint) => (
        <Watched key={joint.id} editor={editor} closing={closing} plan={plan} joint={joint} now={now} />
      ))}
    </Box>
  );
}

function Watched({
  editor,
  closing,
  plan,
  joint,
  now,
}: {
  editor: LineEditor;
  closing: Closing;
  plan: Plan | null;
  joint: LineJoint;
  now: Date;
}) {
  const standing = closing.standing.find((one) => one.joint === joint.id);
  const state = standsAt(standing, now);
  const { next, others } = actsOf(closing, joint, now);
  const { joint: chosen, chooseJoint } = useSelection();
  const own = useRef<HTMLDivElement>(null);
  const here = chosen === joint.id;
  useEffect(() => {
    if (here) own.current?.scrollIntoView({ block: "nearest" });
  }, [here]);
  // the button that was pressed goes away with the state that it belonged to: the hand goes on with the next one
  const pressed = useRef(false);
  useEffect(() => {
    if (!pressed.current) return;
    pressed.current = false;
    const row = own.current;
    const button = row?.querySelector<HTMLElement>("[data-next] button") ?? row?.querySelector<HTMLElement>("button");
    button?.focus();
  }, [state]);
  const note = (act: Act) => {
    pressed.current = true;
    editor.edit((was) => seen(was, [joint], act.what, asNoted()));
  };
  const { events } = workAt(editor.document, joint);
  // a dry joint is one row; chosen, or asked for once more, it shows its history
  const open = state !== "dry" || here || next !== null;
  const waits = left(standing?.until ?? "", now);
  return (
    <Box
      ref={own}
      data-joint-watch={joint.id}
      data-state={state}
      sx={{
        borderBottom: "1px solid var(--rule)",
        borderLeft: here ? "4px solid var(--action)" : "4px solid transparent",
        pl: 1,
        py: 0.75,
      }}
    >
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 1, flexWrap: "wrap" }}>
        <Box
          component="button"
          aria-pressed={here}
          onClick={() => chooseJoint(here ? "" : joint.id)}
          sx={{
            all: "unset",
            cursor: "pointer",
            fontWeight: 600,
            flex: 1,
            minWidth: 140,
            minHeight: 30,
            display: "flex",
            alignItems: "center",
            "&:focus-visible": { outline: "3px solid var(--ink)" },
            "@media (pointer: coarse)": { minHeight: 44 },
          }}
        >
          {joint.place}
        </Box>
        <Box role="status" sx={{ color: INK[state] ?? "var(--second)", font: `600 17px ${condensed}` }}>
          {state === "drying"
            ? `${standing?.first_look ? "a first look, " : ""}wait ${waits}`
            : sayState(closing, state)}
        </Box>
      </Box>
      {state === "wet" && standing?.rung && (
        <Box sx={{ my: 0.5 }}>
          {closing.watch.each && <b>Is it the part next door? If not: </b>}
          {standing.rung_text}
        </Box>
      )}
      {state === "wet" && standing?.rung === "another clamp" && (
        <OtherClamp editor={editor} joint={joint} plan={plan} onDone={() => (pressed.current = true)} />
      )}
      <Box data-next sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
        {next && (
          <Button
            size="small"
            variant={next.what === "dried" ? "outlined" : "contained"}
            color={next.what === "dried" ? "primary" : "secondary"}
            onClick={() => note(next)}
          >
            {next.word}
          </Button>
        )}
        {open &&
          others.map((act) => (
            <Button key={act.what} size="small" onClick={() => note(act)}>
              {act.word}
            </Button>
          ))}
        {events.length > 0 && open && (
          <Button size="small" variant="text" onClick={() => editor.edit((was) => unseen(was, joint))}>
            Take that back
          </Button>
        )}
      </Box>
      {events.length > 0 && open && (
        <Box sx={{ fontSize: 14, color: "var(--second)" }}>
          {events.map((event) => [event.at.slice(11, 16), event.what, event.by].filter(Boolean).join(" ")).join(" · ")}
        </Box>
      )}
    </Box>
  );
}
