import type { Step } from "../../api/types";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { saveFile } from "../../api/download";
import { sentence } from "../../api/client";
import { useNotice } from "../../ui/notice";
import { Section } from "../../ui/Section";
import { useSteps } from "../../doc/useSteps";
import { sheetOf } from "../../workspace/sheet";
import { condensed } from "../../theme/theme";
import { Cautions } from "../../ui/Cautions";
import { HowToFlare } from "../../ui/FlareGuide";
import { Hoses } from "./Hoses";
import { Makings } from "./Makings";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const FILES = [
  { kind: "document", text: "Line document" },
  { kind: "points", text: "Points CSV" },
  { kind: "bends", text: "Bend CSV" },
  { kind: "dxf", text: "DXF" },
  { kind: "svg", text: "SVG drawing" },
  { kind: "step", text: "STEP" },
  { kind: "stl", text: "STL" },
  { kind: "glb", text: "glTF" },
] as const;

function Told({ step, number }: { step: Step; number: number }) {
  return (
    <Box component="li" sx={{ display: "flex", gap: 1.5, py: 1, borderTop: "1px solid var(--rule)" }}>
      <Box sx={{ font: `600 20px ${condensed}`, minWidth: 22, textAlign: "right" }}>{number}</Box>
      <Box>
        <Cautions texts={step.cautions} />
        {step.text}
        {step.why && <Box sx={{ fontSize: 14, color: "var(--second)" }}>{step.why}</Box>}
        {step.flaring && <HowToFlare flaring={step.flaring} />}
      </Box>
    </Box>
  );
}

/** The order of work for this line, the sheet for the bench, and the line as files. */
export default function MakePanel({ editor, view }: Props) {
  const steps = useSteps(editor.document, editor.tube);
  const { part, plan, old } = view;
  const notice = useNotice();
  const tube = editor.tube !== "";
  const stays = editor.document.spans.some(
    (span) => span.id === editor.tube && "state" in span && span.state === "stays",
  );
  const made = steps.filter((step) => !step.whole);
  const behind = steps.filter((step) => step.whole);
  const held = part?.held_end ?? "A";
  const ready = part !== null && !old && editor.save === "saved";
  const stops = [...(plan?.findings ?? []), ...(view.bench?.findings ?? [])].filter(
    (finding) => finding.severity === "stop" && !finding.set_aside,
  ).length;
  return (
    <Box sx={{ p: 2 }}>
      {stays && <Box role="note">This tube is old and stays: there is nothing to make, cut or bend.</Box>}
      {tube && !stays && (
        <>
          <Makings editor={editor} ready={ready} />
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1, mt: 1.5 }}>
            <Button
              disabled={!ready}
              href={sheetOf(editor.opened.id, editor.tube)}
              target="_blank"
              rel="noopener"
              sx={{ minHeight: 44 }}
            >
              Print the build sheet
            </Button>
            <Button
              disabled={!ready}
              href={`/api/lines/${editor.opened.id}/tape.pdf?span=${editor.tube}`}
              target="_blank"
              rel="noopener"
              sx={{ minHeight: 44 }}
            >
              Print the paper tape
            </Button>
            <Button
              disabled={!ready}
              href={`/api/lines/${editor.opened.id}/jig.pdf?span=${editor.tube}&home=${held}`}
              target="_blank"
              rel="noopener"
              sx={{ minHeight: 44 }}
            >
              Print the jig sheet
            </Button>
            <Box sx={{ display: "flex", gap: 1 }}>
              {(["stl", "dxf"] as const).map((kind) => (
                <Button
                  key={kind}
                  disabled={!ready}
                  href={`/api/lines/${editor.opened.id}/jig.${kind}?span=${editor.tube}&home=${held}`}
                  sx={{ minHeight: 44, flex: 1 }}
                >
                  Blocks, {kind.toUpperCase()}
                </Button>
              ))}
            </Box>
          </Box>
        </>
      )}
      {stops > 0 && (
        <Box role="note" sx={{ mt: 1, color: "var(--stop)", fontWeight: 600 }}>
          {stops === 1 ? "One stop is" : `${stops} stops are`} open: the sheet says not to make it yet.
        </Box>
      )}
      {tube && !stays && (
        <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
          Order of work
        </Typography>
      )}
      {tube && !stays && !part && <Box>The steps follow as soon as every reading can be read.</Box>}
      {part && (
        <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
          {made.map((step, k) => (
            <Told key={step.text} step={step} number={k + 1} />
          ))}
        </Box>
      )}
      {behind.length > 0 && (
        <Section
          title={`Then fitted and proved, ${behind.length} steps`}
          hint="as Fit and Prove have them"
          open={made.length === 0}
        >
          <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
            {behind.map((step, k) => (
              <Told key={step.id} step={step} number={made.length + k + 1} />
            ))}
          </Box>
        </Section>
      )}
      <Hoses editor={editor} view={view} />
      <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
        As a file
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        {FILES.map(({ kind, text }) => (
          <Button
            key={kind}
            size="small"
            disabled={kind !== "document" && !ready}
            onClick={() =>
              void saveFile(`/api/lines/${editor.opened.id}/export/${kind}?span=${editor.tube}`).catch(
                (error: unknown) => notice({ text: sentence(error) }),
              )
            }
          >
            {text}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
