import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, sentence, take } from "../../api/client";
import type { HoseSpan, OpenLine } from "../../api/types";
import { setPiece } from "../../doc/chain";
import { useHoseStudy } from "../../doc/useHoseStudy";
import { useLine } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { NotHere } from "../../ui/NotHere";
import { BenchHead } from "./BenchHead";
import { big } from "./sizes";

/** The making of a hose at the bench: one step a screen. */
export function HoseBench() {
  const { lineId = "", spanId = "" } = useParams();
  const line = useQuery({
    // of its own: the workspace that is left has read the line before what is ticked here
    queryKey: ["hose at the bench", lineId],
    queryFn: () => take(api.GET("/api/lines/{line_id}", { params: { path: { line_id: lineId } } })),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  if (line.isError) return <NotHere text={sentence(line.error)} />;
  if (!line.data) return null;
  if (!line.data.document.spans.some((span) => span.id === spanId && span.kind === "hose"))
    return <NotHere text="There is no such hose in this line." />;
  return <Steps first={line.data} spanId={spanId} />;
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
  const navigate = useNavigate();
  const back = `/lines/${first.id}/choose?piece=${spanId}`;
  // what was ticked is kept before the workspace reads the line again
  const leave = () => void editor.flush().then(() => navigate(back));
  const go = (to: number) => setAt(Math.max(0, Math.min(steps.length, to)));
  const turn = (id: string) => {
    editor.edit((was) =>
      setPiece<HoseSpan>(was, spanId, {
        done: done.has(id) ? [...done].filter((one) => one !== id) : [...done, id],
      }),
    );
    setAt(null);
  };

  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "Escape") leave();
      else if (event.key === "ArrowRight") go(index + 1);
      else if (event.key === "ArrowLeft") go(index - 1);
      else if (event.key === "Enter" && step && !target.closest("button, a")) turn(step.id);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  return (
    <Box
      sx={{
        height: "100dvh",
        display: "grid",
        gridTemplateRows: "auto minmax(0, 1fr) auto",
        background: "var(--paper)",
      }}
    >
      <BenchHead
        title={`${editor.document.name}, hose`}
        leave={
          <Link
            to={back}
            onClick={(event) => {
              event.preventDefault();
              leave();
            }}
          >
            Leave the bench
          </Link>
        }
      />
      <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 1180, width: "100%", mx: "auto", overflow: "auto" }}>
        {step ? (
          <>
            <Box sx={{ font: `500 24px ${condensed}`, color: "var(--second)" }}>
              {index + 1} of {steps.length}
              {done.has(step.id) ? ", done" : ""}
            </Box>
            <Box component="h2" sx={{ m: 0, mt: 1, font: `600 clamp(30px, 4.6vw, 52px)/1.15 ${condensed}` }}>
              {step.text}
            </Box>
            <Box sx={{ fontSize: 24, color: "var(--second)", mt: 2 }}>{step.why}</Box>
          </>
        ) : (
          study && (
            <Box component="h2" sx={{ m: 0, font: `600 clamp(30px, 4.6vw, 52px)/1.15 ${condensed}` }}>
              {open < 0 ? "The hose is ready to go on." : "Some steps are still open."}
            </Box>
          )
        )}
      </Box>
      <Box
        component="footer"
        sx={{ display: "flex", gap: 1.5, p: 1.5, borderTop: "2px solid var(--ink)", flexWrap: "wrap" }}
      >
        <Button sx={big} onClick={() => go(index - 1)} disabled={index === 0}>
          Back
        </Button>
        {step ? (
          <Button
            sx={{ ...big, flex: 1, minWidth: 200 }}
            variant="contained"
            color="secondary"
            onClick={() => turn(step.id)}
          >
            {done.has(step.id) ? "Not done after all" : "Done"}
          </Button>
        ) : (
          <Box sx={{ flex: 1 }} />
        )}
        <Button sx={big} onClick={() => go(index + 1)} disabled={!step}>
          Next
        </Button>
      </Box>
    </Box>
  );
}
