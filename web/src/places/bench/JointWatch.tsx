import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Closing, LineJoint } from "../../api/types";
import { left, seen, unseen, workAt } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { actsOf, standsAt } from "../../doc/watching";
import { asNoted } from "../../doc/who";
import { condensed } from "../../theme/theme";
import { useCall } from "../../workspace/closing/useCall";
import { sayState } from "../../workspace/closing/useShownJoints";
import { big } from "./sizes";

interface Props {
  editor: LineEditor;
  closing: Closing;
  joint: LineJoint;
  now: Date;
}

/** One joint under watch, readable at two metres: how it stands, and what else than the usual may be said of it. */
export function JointWatch({ editor, closing, joint, now }: Props) {
  const standing = closing.standing.find((one) => one.joint === joint.id);
  const state = standsAt(standing, now);
  useCall(state === "look" ? 1 : 0);
  return (
    <Box data-joint-watch={joint.id} data-state={state} sx={{ mt: 2 }}>
      <Box
        role="status"
        sx={{
          font: `600 clamp(44px, 8vw, 84px)/1 ${condensed}`,
          color: state === "wet" ? "var(--stop)" : state === "dry" ? "var(--good)" : "var(--ink)",
        }}
      >
        {state === "drying" ? left(standing?.until ?? "", now) : sayState(closing, state)}
      </Box>
      {standing?.first_look && state === "drying" && (
        <Box sx={{ fontSize: 24, mt: 1 }}>Dry at a first look. It counts when the wait is over.</Box>
      )}
      {state === "wet" && (
        <Box sx={{ fontSize: 24, mt: 1 }}>
          {closing.watch.each && "Is it the part next door? If not: "}
          {standing?.rung_text}
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", mt: 2 }}>
        {actsOf(closing, joint, now).others.map((act) => (
          <Button
            key={act.what}
            sx={{ ...big, flex: 1 }}
            onClick={() => editor.edit((was) => seen(was, [joint], act.what, asNoted()))}
          >
            {act.word}
          </Button>
        ))}
        {workAt(editor.document, joint).events.length > 0 && (
          <Button sx={big} variant="text" onClick={() => editor.edit((was) => unseen(was, joint))}>
            Take that back
          </Button>
        )}
      </Box>
    </Box>
  );
}
