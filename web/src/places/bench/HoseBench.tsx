import Box from "@mui/material/Box";
import { useState } from "react";
import { useParams } from "react-router";
import type { HoseSpan, OpenLine } from "../../api/types";
import { setPiece } from "../../doc/chain";
import { useHoseStudy } from "../../doc/useHoseStudy";
import { useLine } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { NotHere } from "../../ui/NotHere";
import { StepFrame, headline } from "./StepFrame";
import { useBenchLine } from "./useBenchLine";

/** The making of a hose at the bench: one step a screen. */
export default function HoseBench() {
  const { lineId = "", spanId = "" } = useParams();
  const { line, problem } = useBenchLine(lineId, "hose at the bench");
  if (problem) return <NotHere text={problem} />;
  if (!line) return null;
  if (!line.document.spans.some((span) => span.id === spanId && span.kind === "hose"))
    return <NotHere text="There is no such hose in this line." />;
  return <Steps first={line} spanId={spanId} />;
}

function Steps({ first, spanId }: { first: OpenLine; spanId: string }) {
  const editor = useLine(first);
  const study = useHoseStudy(editor.document, spanId, first.id);
  const piece = editor.document.spans.find((span): span is HoseSpan => span.id === spanId && span.kind === "hose");
  const steps = study?.assembly.steps ?? [];
  const done = new Set(piece?.done ?? []);
  const open = steps.findIndex((step) => !done.has(step.id));
  const [at, setAt] = useState<number | null>(null);
  const index = Math.min(at ?? (open < 0 ? steps.length : open), steps.length);
  const step = steps[index];
  const go = (to: number) => setAt(Math.max(0, Math.min(steps.length, to)));
  const turn = (id: string) => {
    editor.edit((was) =>
      setPiece<HoseSpan>(was, spanId, {
        done: done.has(id) ? [...done].filter((one) => one !== id) : [...done, id],
      }),
    );
    setAt(null);
  };

  return (
    <StepFrame
      title={`${editor.document.name}, hose`}
      back={`/lines/${first.id}/choose?piece=${spanId}`}
      flush={editor.flush}
      index={index}
      count={steps.length}
      go={go}
      turn={step ? { word: done.has(step.id) ? "Not done after all" : "Done", act: () => turn(step.id) } : null}
    >
      {step ? (
        <>
          <Box sx={{ font: `500 24px ${condensed}`, color: "var(--second)" }}>
            {index + 1} of {steps.length}
            {done.has(step.id) ? ", done" : ""}
          </Box>
          <Box component="h2" sx={headline}>
            {step.text}
          </Box>
          <Box sx={{ fontSize: 24, color: "var(--second)", mt: 2 }}>{step.why}</Box>
        </>
      ) : (
        study && (
          <Box component="h2" sx={headline}>
            {open < 0 ? "The hose is ready to go on." : "Some steps are still open."}
          </Box>
        )
      )}
    </StepFrame>
  );
}
