import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Closing, JointEvent, LineJoint } from "../../api/types";
import { left, localTime, seen, unseen, workAt } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { useNow } from "../../ui/useNow";
import { sayState } from "../../workspace/closing/useShownJoints";
import { big } from "./sizes";

/** One joint under watch, readable at two metres: a wait that counts down, dry or wet with a thumb. */
export function JointWatch({ editor, closing, joint }: { editor: LineEditor; closing: Closing; joint: LineJoint }) {
  const standing = closing.standing.find((one) => one.joint === joint.id);
  const now = useNow(standing?.state === "drying");
  if (!standing) return null;
  const waits = left(standing.until, now);
  const state = standing.state === "drying" && waits === "" ? "look" : standing.state;
  const { rung } = standing;
  const note = (what: JointEvent["what"]) => editor.edit((was) => seen(was, joint, what, localTime(new Date(), true)));
  return (
    <Box data-joint-watch={joint.id} data-state={state} sx={{ mt: 2 }}>
      <Box
        role="status"
        sx={{
          font: `600 clamp(44px, 8vw, 84px)/1 ${condensed}`,
          color: state === "wet" ? "var(--stop)" : state === "dry" ? "var(--good)" : "var(--ink)",
        }}
      >
        {state === "drying" ? waits : sayState(state)}
      </Box>
      {state === "wet" && (
        <Box sx={{ fontSize: 24, mt: 1 }}>Is it the part next door? If not: {standing.rung_text}</Box>
      )}
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", mt: 2 }}>
        {state === "drying" || state === "look" ? (
          <>
            <Button sx={{ ...big, flex: 1 }} variant="contained" color="secondary" onClick={() => note("dry")}>
              It is dry
            </Button>
            <Button sx={{ ...big, flex: 1 }} onClick={() => note("wet")}>
              It is wet
            </Button>
          </>
        ) : state === "wet" && rung ? (
          <>
            <Button sx={{ ...big, flex: 1 }} onClick={() => note("next door")}>
              It is next door
            </Button>
            <Button sx={{ ...big, flex: 1 }} variant="contained" color="secondary" onClick={() => note(rung)}>
              Done: {rung}
            </Button>
          </>
        ) : (
          <Button sx={{ ...big, flex: 1 }} variant="contained" color="secondary" onClick={() => note("dried")}>
            {state === "dry" ? "Dried again" : "Dried"}
          </Button>
        )}
        {workAt(editor.document, joint).events.length > 0 && (
          <Button sx={big} variant="text" onClick={() => editor.edit((was) => unseen(was, joint))}>
            Take that back
          </Button>
        )}
      </Box>
    </Box>
  );
}
