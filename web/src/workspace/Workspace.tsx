import Box from "@mui/material/Box";
import GlobalStyles from "@mui/material/GlobalStyles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import type { OpenLine } from "../api/types";
import { Side } from "./Side";
import { Stage } from "./stage/Stage";
import { Strip } from "./strip/Strip";
import { ChainBar } from "./ChainBar";
import { ConflictBar } from "./ConflictBar";
import { NoTube } from "./NoTube";
import { LineBar } from "./LineBar";
import { SavingContext } from "./SaveMark";
import { sheetOf } from "./sheet";
import { HEIGHT } from "./strip/along";
import type { Panels, StageName } from "./stages";
import { ABOUT_A_TUBE, ASK_MUCH, STAGES } from "./stages";
import { tubeOf, useSelection } from "../doc/select";
import { StageTabs } from "./StageTabs";
import { useAfterPaint } from "../doc/useAfterPaint";
import { useBench } from "../doc/useBench";
import { useCatalogue } from "../doc/useCatalogue";
import { useLine } from "../doc/useLine";
import { usePlan } from "../doc/usePlan";
import { fetched } from "../ui/fetched";

// drawn again only when their own part of the line has changed: typing must answer at once
const Head = memo(LineBar);
const Chosen = memo(ChainBar);
const Tabs = memo(StageTabs);
const Findings = memo(Side);
const Unrolled = memo(Strip);
const SwingStage = fetched(() => import("./swing/SwingStage"));

/** The screen people live in: what the stage asks, the line, its findings, and the strip. */
export function Workspace({ first, stage, panels }: { first: OpenLine; stage: StageName; panels: Panels }) {
  const kept = useLine(first);
  const { place, choosePlace, showWorking, swing } = useSelection();
  const tube = tubeOf(kept.document, place);
  const editor = useMemo(() => ({ ...kept, tube }), [kept, tube]);
  const bench = useBench(editor.document, stage === "plan" || stage === "make", tube);
  const view = usePlan(editor.document, bench, tube);
  // the field and the strip alone answer a key at once; what is dearer to draw follows in the next breath
  const [answered, setAnswered] = useState({ editor, view });
  if (answered.view !== view || answered.editor.tube !== tube) setAnswered({ editor, view });
  const later = useAfterPaint(answered);
  const calm = useAfterPaint(editor);
  const catalogue = useCatalogue();
  // on a tablet lying down the findings share the middle with the stage
  const between = useMediaQuery("(min-width: 901px) and (max-width: 1180px)");
  const navigate = useNavigate();
  const { undo, redo } = editor;

  const go = useCallback(
    (next: StageName) => void navigate(`/lines/${first.id}/${next}`, { replace: true }),
    [first.id, navigate],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const command = event.ctrlKey || event.metaKey;
      const letter = event.key.toLowerCase();
      const tab = event.altKey && !command ? STAGES[Number(event.key) - 1] : undefined;
      if (command && letter === "z" && !event.shiftKey) undo();
      else if (command && (letter === "y" || (letter === "z" && event.shiftKey))) redo();
      else if (command && letter === "p") window.open(sheetOf(first.id, tube), "_blank");
      else if (tab) go(tab);
      else if (event.key === "Escape") {
        // Esc in an open menu closes that menu only
        if (event.target instanceof Element && event.target.closest('[role="menu"]')) return;
        choosePlace(null);
        showWorking(null);
        return;
      } else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [choosePlace, first.id, go, redo, showWorking, tube, undo]);

  // whoever arrives with the keyboard goes on from what the stage asks, not from the top of the page
  const panel = useRef<HTMLElement>(null);
  const Panel = panels[stage];
  useEffect(() => {
    const arrive = () => {
      if (document.activeElement === document.body) panel.current?.focus({ preventScroll: true });
    };
    // not before there is something to go on to; a stage that cannot be fetched says so itself
    Panel.fetch().then(arrive, arrive);
  }, [Panel]);

  const asked = useMemo(() => <Panel editor={editor} view={later.view} />, [Panel, editor, later.view]);
  const drawn = useMemo(() => <Stage document={later.editor.document} view={later.view} />, [later]);
  const wide = ASK_MUCH.has(stage);

  return (
    <Box
      sx={{
        height: "100dvh",
        display: "grid",
        gridTemplateRows: "auto auto auto minmax(0, 1fr) auto auto",
        "@media (max-width: 900px)": { height: "auto", minHeight: "100dvh" },
      }}
    >
      <GlobalStyles styles={{ ":root": { "--foot": `${HEIGHT}px` } }} />
      <SavingContext value={editor}>
        <Head editor={calm} catalogue={catalogue} />
      </SavingContext>
      <Tabs stage={stage} go={go} editor={later.editor} view={later.view} />
      <ConflictBar editor={editor} />
      <Box
        component="main"
        sx={{
          minHeight: 0,
          display: "grid",
          gridTemplateColumns: wide
            ? "minmax(412px, min(50%, 820px)) minmax(0, 1fr) 272px"
            : "412px minmax(0, 1fr) 288px",
          "@media (max-width: 1180px)": {
            gridTemplateColumns: wide ? "minmax(412px, 60%) minmax(0, 1fr)" : "412px minmax(0, 1fr)",
          },
          "@media (max-width: 900px)": { gridTemplateColumns: "1fr" },
        }}
      >
        <Box
          key={stage}
          ref={panel}
          component="section"
          aria-label="What this stage asks"
          tabIndex={-1}
          sx={{
            outline: "none",
            container: "panel / inline-size",
            overflowY: "auto",
            scrollPaddingBottom: "96px",
            borderRight: "1px solid var(--rule)",
            minHeight: 0,
            "@media (max-width: 900px)": { borderRight: 0, order: 2, overflow: "visible" },
          }}
        >
          {tube === "" && ABOUT_A_TUBE.has(stage) ? <NoTube /> : asked}
        </Box>
        <Box
          component="section"
          aria-label="The line"
          sx={{
            background: "var(--sheet)",
            minHeight: 0,
            minWidth: 0,
            "@media (max-width: 1180px)": { display: "grid", gridTemplateRows: "minmax(180px, 1fr) minmax(0, 45%)" },
            "@media (max-width: 900px)": { display: "block", order: 1 },
          }}
        >
          <Box sx={{ height: "100%", minHeight: 0, "@media (max-width: 900px)": { height: 300 } }}>
            {swing !== null && stage === "plan" ? (
              <SwingStage document={editor.document} tube={tube} move={swing} />
            ) : (
              drawn
            )}
          </Box>
          {between && (
            <Box sx={{ overflowY: "auto", background: "var(--paper)", borderTop: "1px solid var(--rule)" }}>
              <Findings editor={later.editor} view={later.view} name="Findings" />
            </Box>
          )}
        </Box>
        {!between && (
          <Box
            component="aside"
            sx={{
              overflowY: "auto",
              borderLeft: "1px solid var(--rule)",
              minHeight: 0,
              "@media (max-width: 900px)": { order: 3, borderLeft: 0, borderTop: "1px solid var(--rule)" },
            }}
          >
            <Findings editor={later.editor} view={later.view} name="Findings" />
          </Box>
        )}
      </Box>
      {catalogue && <Chosen editor={calm} />}
      <Unrolled editor={answered.editor} view={answered.view} />
    </Box>
  );
}
