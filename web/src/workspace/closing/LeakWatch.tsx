import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef } from "react";
import type { Closing, JointEvent, JointStanding, LineJoint } from "../../api/types";
import { left, localTime, seen, unseen, workAt } from "../../doc/proving";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { useNow } from "../../ui/useNow";
import { sayState } from "./useShownJoints";

const FIRST: Record<string, number> = { wet: 0, look: 1, drying: 2, mended: 3, tight: 4, open: 5, dry: 6 };
const INK: Record<string, string> = { wet: "var(--stop)", dry: "var(--good)", look: "var(--caution)" };

/** Every joint: dried, a wait that counts down, looked at, dry or wet; a wet one leads its own ladder. */
export function LeakWatch({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const drying = closing.standing.some((one) => one.state === "drying");
  const now = useNow(drying);
  const standing = (joint: LineJoint): JointStanding | undefined =>
    closing.standing.find((one) => one.joint === joint.id);
  const stateOf = (joint: LineJoint): string => {
    const one = standing(joint);
    return one?.state === "drying" && left(one.until, now) === "" ? "look" : (one?.state ?? "open");
  };
  const wet = closing.joints.filter((joint) => stateOf(joint) === "wet").length;
  // of several wet ones the highest comes first, where it is known how high they stand
  const sorted = [...closing.joints].sort(
    (a, b) => (FIRST[stateOf(a)] ?? 9) - (FIRST[stateOf(b)] ?? 9) || (b.height_mm ?? -1e6) - (a.height_mm ?? -1e6),
  );
  return (
    <Box component="section" aria-label="Leak watch" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Every joint, dry
      </Box>
      <Box sx={{ color: "var(--second)", fontSize: 14 }}>
        {wet > 1
          ? "Several are wet: the highest one first, the rest may only have run down from it."
          : "Dry it, wait under pressure, look with a dry cloth. Never just crank it tighter."}
      </Box>
      {sorted.map((joint) => (
        <Watch
          key={joint.id}
          editor={editor}
          joint={joint}
          standing={standing(joint)}
          state={stateOf(joint)}
          waits={left(standing(joint)?.until ?? "", now)}
        />
      ))}
    </Box>
  );
}

function Watch({
  editor,
  joint,
  standing,
  state,
  waits,
}: {
  editor: LineEditor;
  joint: LineJoint;
  standing: JointStanding | undefined;
  state: string;
  waits: string;
}) {
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
    const next = row?.querySelector<HTMLElement>("[data-next] button") ?? row?.querySelector<HTMLElement>("button");
    next?.focus();
  }, [state]);
  const note = (what: JointEvent["what"]) => {
    pressed.current = true;
    editor.edit((was) => seen(was, joint, what, localTime(new Date(), true)));
  };
  const { events } = workAt(editor.document, joint);
  const rung = standing?.rung;
  // a dry joint is one row; chosen, it shows its history
  const open = state !== "dry" || here;
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
        {state === "dry" && (
          <Button size="small" variant="text" onClick={() => note("dried")}>
            Dried again
          </Button>
        )}
        <Box role="status" sx={{ color: INK[state] ?? "var(--second)", font: `600 17px ${condensed}` }}>
          {state === "drying" ? `wait ${waits}` : sayState(state)}
        </Box>
      </Box>
      {state === "wet" && rung && (
        <Box sx={{ my: 0.5 }}>
          <b>Is it the part next door?</b> If not: {standing.rung_text}
        </Box>
      )}
      <Box data-next sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
        {(state === "open" || state === "tight" || state === "mended") && (
          <Button size="small" onClick={() => note("dried")}>
            Dried
          </Button>
        )}
        {(state === "drying" || state === "look") && (
          <>
            <Button size="small" variant="contained" color="secondary" onClick={() => note("dry")}>
              It is dry
            </Button>
            <Button size="small" onClick={() => note("wet")}>
              It is wet
            </Button>
          </>
        )}
        {state === "wet" && rung && (
          <>
            <Button size="small" onClick={() => note("next door")}>
              It is next door
            </Button>
            <Button size="small" variant="contained" color="secondary" onClick={() => note(rung)}>
              Done: {rung}
            </Button>
          </>
        )}
        {events.length > 0 && open && (
          <Button size="small" variant="text" onClick={() => editor.edit((was) => unseen(was, joint))}>
            Take that back
          </Button>
        )}
      </Box>
      {events.length > 0 && open && (
        <Box sx={{ fontSize: 14, color: "var(--second)" }}>
          {events.map((event) => `${event.at.slice(11, 16)} ${event.what}`).join(" · ")}
        </Box>
      )}
    </Box>
  );
}
