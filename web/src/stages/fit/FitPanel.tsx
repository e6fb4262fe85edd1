import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useNavigate } from "react-router";
import type { Line } from "../../api/types";
import { useClosing } from "../../doc/useClosing";
import { withProving } from "../../doc/proving";
import { useLearnt } from "../../doc/useLearnt";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Cautions } from "../../ui/Cautions";
import { Typed } from "../../ui/Entry";
import { BeingWorkedOut } from "../../ui/BeingWorkedOut";
import { Columns } from "../../ui/Columns";
import { Ticks } from "../../ui/Ticks";
import { CountedIn } from "../../workspace/closing/Counted";
import { FillLog } from "../../workspace/closing/FillLog";
import { StepList } from "../../workspace/closing/StepList";
import { WhoField } from "../../workspace/closing/WhoField";
import { useShownJoints } from "../../workspace/closing/useShownJoints";
import { BackForTheJob } from "./BackForTheJob";
import { ClipList } from "./ClipList";
import { Holding } from "./Holding";
import { OpenItems } from "./OpenItems";
import { WrenchFields } from "./WrenchFields";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** The line going in: clean, loose from end to end, by hand, tight in order; and what came off going back on. */
export default function FitPanel({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const { closing, problem, again } = useClosing(line, editor.opened.id);
  useShownJoints(closing);
  const removed = view.plan?.removed;
  const refit = removed?.refit ?? [];
  const tick = (id: string, on: boolean) =>
    edit((was) => ({
      ...was,
      removal: {
        ...was.removal,
        items: was.removal.items.map((item, k) => (k === Number(id) ? { ...item, refitted: on } : item)),
      },
    }));
  const over = removed?.left_over ?? [];
  // old tube that stays is held as it was
  const clips = view.old || view.piece?.state === "stays" ? null : (view.piece?.clips ?? null);
  const navigate = useNavigate();

  return (
    <Box sx={{ p: 2 }}>
      <Cautions texts={closing?.cautions.fit ?? []} />
      {/* all at once: what comes later would push away what a finger is about to tick */}
      {!closing && !problem && <BeingWorkedOut what="The order of fitting" />}
      {(closing || problem) && (
        <Columns>
          <Box>
            <HowItWas line={line} />
            <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
              <Typography variant="h2" sx={{ flex: 1 }}>
                In order
              </Typography>
              <Button
                size="small"
                onClick={() => void editor.flush().then(() => navigate(`/lines/${editor.opened.id}/closing/fit`))}
              >
                At the bench
              </Button>
            </Box>
            <WhoField />
            {problem && (
              <Box role="alert" sx={{ color: "var(--stop)" }}>
                {problem}
              </Box>
            )}
            {closing && (
              <>
                <StepList editor={editor} closing={closing} group="ready" title="Before connecting" />
                <StepList editor={editor} closing={closing} group="loose" title="Into its place, all loose" />
                <StepList editor={editor} closing={closing} group="hand" title="Each joint by hand" />
              </>
            )}
            {clips && <Holding clips={clips} unit={line.unit} />}
            <ClipList editor={editor} view={view} proposed={clips} />
          </Box>
          <Box>
            {closing && (
              <>
                <StepList editor={editor} closing={closing} group="tight" title="Tight, in order" />
                <StepList
                  editor={editor}
                  closing={closing}
                  group="open"
                  title="With the last joint open"
                  under={(step) =>
                    step.asks.length > 0 ? <FillLog editor={editor} closing={closing} step={step} /> : null
                  }
                />
              </>
            )}
            <Typography variant="h2">Back together</Typography>
            {line.removal.items.length === 0 && (
              <Box sx={{ color: "var(--second)" }}>The removal log turns round here: last off, first on.</Box>
            )}
            <Ticks
              list={refit.map((step) => ({ id: String(step.item), text: step.text }))}
              done={new Set(line.removal.items.flatMap((item, k) => (item.refitted ? [String(k)] : [])))}
              onTick={tick}
            />
            {refit.length > 0 && (
              <Box
                role="status"
                aria-label="Left over"
                sx={{ mt: 1, color: over.length > 0 ? "var(--caution)" : "var(--good)", fontWeight: 600 }}
              >
                {over.length > 0 ? `Left over: ${over.join(" · ")}` : "Nothing left over."}
              </Box>
            )}
            <BackForTheJob jobId={editor.opened.job_id} lineId={editor.opened.id} />
            {line.spans.some((span) => span.kind === "rigid" && span.state !== "stays") && <Met editor={editor} />}
            {closing && <CountedIn editor={editor} closing={closing} />}
            <OpenItems items={line.open_items} set={(open_items) => edit((was) => ({ ...was, open_items }))} />
            {closing && <WrenchFields wrench={closing.wrench} unit={line.unit} saved={again} />}
            <Box sx={{ mt: 3, borderTop: "2px solid var(--ink)", pt: 1.5 }}>
              <Button
                fullWidth
                variant="contained"
                color="secondary"
                onClick={() => void navigate(`/lines/${editor.opened.id}/prove`, { replace: true })}
                sx={{ minHeight: 48, fontSize: 20 }}
              >
                On to proving it
              </Button>
            </Box>
          </Box>
        </Columns>
      )}
    </Box>
  );
}

/** How the part met its ports: what the shop learns from. */
function Met({ editor }: { editor: LineEditor }) {
  const { missed, tweaks } = editor.document.proving;
  const learnt = useLearnt();
  return (
    <Box component="section" aria-label="How it met its ports" sx={{ mt: 2 }}>
      <Typography variant="h2">How it met its ports</Typography>
      <Box sx={{ display: "flex", gap: 0.5, mt: 0.5, flexWrap: "wrap" }}>
        <Typed
          label="Missed its port by"
          text={missed}
          named="missed by"
          placeholder="such as 2 mm"
          width={170}
          onText={(text) => editor.edit((was) => withProving(was, () => ({ missed: text.slice(0, 80) })))}
        />
        <Typed
          label="Tweaks"
          text={tweaks}
          named="tweaks"
          placeholder="how many"
          width={80}
          onText={(text) => editor.edit((was) => withProving(was, () => ({ tweaks: text.slice(0, 24) })))}
        />
      </Box>
      {learnt?.met && <Box sx={{ fontSize: 14, color: "var(--second)" }}>{learnt.met}</Box>}
    </Box>
  );
}

/** What was noted while it came off, for the way back. */
function HowItWas({ line }: { line: Line }) {
  const { machine_state, two_people, went_out } = line.removal;
  const noted = [
    ...machine_state,
    ...(two_people ? ["two people"] : []),
    ...(went_out.trim() ? [`it went out ${went_out.trim()}`] : []),
  ];
  if (noted.length === 0) return null;
  return (
    <Box component="section" aria-label="As it was when it came off" sx={{ mb: 1.5 }}>
      <Typography variant="h2">As it was when it came off</Typography>
      <Box>{noted.join(" · ")}</Box>
    </Box>
  );
}
