import Box from "@mui/material/Box";
import type { Plan } from "../api/types";
import { condensed } from "../theme/theme";
import type { StageName } from "./stages";
import { STAGES } from "./stages";
import type { LineEditor } from "../doc/useLine";
import type { PlanView } from "../doc/usePlan";

interface Props {
  stage: StageName;
  go: (stage: StageName) => void;
  editor: LineEditor;
  view: PlanView;
}

const NAMES: Record<StageName, string> = {
  look: "Look",
  remove: "Remove",
  measure: "Measure",
  choose: "Choose",
  plan: "Plan",
  make: "Make",
  fit: "Fit",
  prove: "Prove",
};

/** The stages in the order people work, each saying how it stands; any may be entered. */
export function StageTabs({ stage, go, editor, view }: Props) {
  return (
    <Box
      component="nav"
      aria-label="Stages"
      sx={{
        display: "grid",
        gridTemplateColumns: "repeat(8, 1fr)",
        "@media (max-width: 720px)": { gridTemplateColumns: "repeat(4, 1fr)" },
        minHeight: 44,
        borderBottom: "2px solid var(--ink)",
      }}
    >
      {STAGES.map((name) => {
        const here = name === stage;
        return (
          <Box
            key={name}
            component="button"
            aria-current={here ? "step" : undefined}
            onClick={() => go(name)}
            sx={{
              all: "unset",
              cursor: "pointer",
              px: 1.5,
              minHeight: 44,
              boxSizing: "border-box",
              display: "flex",
              alignItems: "center",
              justifyContent: "space-between",
              gap: 1,
              fontFamily: condensed,
              borderRight: "1px solid var(--rule)",
              background: here ? "var(--ink)" : "transparent",
              color: here ? "var(--paper)" : "var(--ink)",
              "&:focus-visible": { outline: "3px solid var(--action)", outlineOffset: -4 },
            }}
          >
            <Box sx={{ fontWeight: 600, fontSize: 20 }}>{NAMES[name]}</Box>
            <Box
              sx={{
                fontSize: 15,
                color: here ? "var(--paper)" : "var(--second)",
                whiteSpace: "nowrap",
                "@media (max-width: 1100px)": { display: "none" },
              }}
            >
              {standing(name, view, editor)}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}

function removing({ removed }: Plan): string {
  const count = removed.refit.length;
  return count === 0 ? "" : `${count} off`;
}

function fitting({ removed }: Plan): string {
  const left = removed.open_items.length + removed.left_over.length;
  return left > 0 ? `${left} open` : "";
}

function proving({ removed, findings }: Plan, { document }: LineEditor): string {
  const open = findings.filter((one) => one.stage === "prove" && !one.set_aside && one.severity !== "note").length;
  if (open > 0) return `${open} to settle`;
  if (removed.done) return document.proving.signed ? "signed off" : "done";
  return document.proving.joints.length > 0 ? "under way" : "";
}

function standing(stage: StageName, view: PlanView, editor: LineEditor): string {
  const { plan } = view;
  if (!plan) return "";
  if (stage === "look")
    return editor.document.condition.decision ? "decided" : plan.looked.recommendation ? "to decide" : "";
  if (stage === "remove") return removing(plan);
  if (stage === "fit") return fitting(plan);
  if (stage === "prove") return proving(plan, editor);
  const open = [...plan.findings, ...(view.bench?.findings ?? [])].filter(
    (finding) => !finding.set_aside && finding.severity !== "note",
  );
  const choices = open.filter((finding) => finding.stage === "choose").length;
  const rest = open.filter((finding) => finding.stage !== "choose" && finding.stage !== "prove").length;
  if (stage === "measure") {
    const unread = plan.problems.filter((problem) => !problem.path.endsWith("/order")).length;
    if (unread > 0) return `${unread} to finish`;
    const count = plan.pieces.reduce((sum, piece) => sum + (piece.part?.bends.length ?? 0), 0);
    return count === 1 ? "1 bend" : `${count} bends`;
  }
  if (!plan.chosen) return "";
  if (stage === "choose") return choices > 0 ? `${choices} to settle` : "settled";
  if (stage === "plan") return rest > 0 ? `${rest} to settle` : "settled";
  return open.some((finding) => finding.severity === "stop") ? "not yet" : "ready";
}
