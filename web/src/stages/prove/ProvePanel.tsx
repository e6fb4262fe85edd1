import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useNavigate } from "react-router";
import { withProving } from "../../doc/proving";
import { useClosing } from "../../doc/useClosing";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Cautions } from "../../ui/Cautions";
import { Columns } from "../../ui/Columns";
import { PhotoButton } from "../../ui/PhotoButton";
import { FillLog } from "../../workspace/closing/FillLog";
import { LeakWatch } from "../../workspace/closing/LeakWatch";
import { StepList } from "../../workspace/closing/StepList";
import { WhoField } from "../../workspace/closing/WhoField";
import { useShownJoints } from "../../workspace/closing/useShownJoints";
import { BalanceBox } from "./BalanceBox";
import { BeforeAfter } from "./BeforeAfter";
import { FollowUps } from "./FollowUps";
import { Functions } from "./Functions";
import { HoldTests } from "./HoldTests";
import { OldRest } from "./OldRest";
import { SignOff } from "./SignOff";

/** Photographs of the line in its place, for the record. */
function Photographs({ editor }: { editor: LineEditor }) {
  const { photos } = editor.document.proving;
  const set = (next: string[]) => editor.edit((was) => withProving(was, () => ({ photos: next.filter(Boolean) })));
  return (
    <Box component="section" aria-label="Photographs" sx={{ mb: 2 }}>
      <Typography variant="h2">Photographs for the record</Typography>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {photos.map((photo, k) => (
          <PhotoButton
            key={photo}
            of={`the line in its place ${k + 1}`}
            photo={photo}
            onPhoto={(id) => set(photos.map((one, i) => (i === k ? id : one)))}
          />
        ))}
        {photos.length < 20 && (
          <PhotoButton of="the line in its place" photo="" onPhoto={(id) => set([...photos, id])} />
        )}
      </Box>
    </Box>
  );
}

/** The line filled, bled and proved: figures kept, every joint watched, signed off when nothing is in the way. */
export default function ProvePanel({ editor, view: planned }: { editor: LineEditor; view: PlanView }) {
  const view = useClosing(editor.document, editor.opened.id);
  const { closing, problem } = view;
  useShownJoints(closing);
  const navigate = useNavigate();
  return (
    <Box sx={{ p: 2 }}>
      <Cautions texts={closing?.cautions.prove ?? []} />
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      )}
      {closing && (
        <Columns>
          <Box>
            <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
              <Typography variant="h2" sx={{ flex: 1 }}>
                Fill, bleed, prove
              </Typography>
              <Button
                size="small"
                onClick={() => void editor.flush().then(() => navigate(`/lines/${editor.opened.id}/closing/prove`))}
              >
                At the bench
              </Button>
            </Box>
            <WhoField />
            <StepList
              editor={editor}
              closing={closing}
              group="fill"
              title="Fill and bleed"
              under={(step) =>
                step.asks.length > 0 ? <FillLog editor={editor} closing={closing} step={step} /> : null
              }
            />
            <BalanceBox editor={editor} closing={closing} />
            <HoldTests editor={editor} closing={closing} view={view} />
          </Box>
          <Box>
            <LeakWatch editor={editor} closing={closing} plan={planned.plan} />
            <Functions editor={editor} closing={closing} />
            <BeforeAfter editor={editor} />
            <OldRest editor={editor} />
            <StepList editor={editor} closing={closing} group="again" title="Once more, settled" />
            <StepList editor={editor} closing={closing} group="after" title="Afterwards" />
            <FollowUps editor={editor} closing={closing} />
            <Photographs editor={editor} />
            <SignOff editor={editor} closing={closing} />
          </Box>
        </Columns>
      )}
    </Box>
  );
}
