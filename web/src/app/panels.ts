import { lazy, memo } from "react";
import type { Panels, StagePanel } from "../workspace/stages";

type Load = () => Promise<{ default: StagePanel }>;
const loads: Load[] = [];

/** Fetched when first gone to, drawn again only when the line or its plan has changed. */
function panel(load: Load) {
  loads.push(load);
  return memo(lazy(load));
}

export const PANELS: Panels = {
  look: panel(() => import("../stages/look/LookPanel")),
  remove: panel(() => import("../stages/remove/RemovePanel")),
  measure: panel(() => import("../stages/measure/MeasurePanel")),
  choose: panel(() => import("../stages/choose/ChoosePanel")),
  plan: panel(() => import("../stages/plan/PlanPanel")),
  make: panel(() => import("../stages/make/MakePanel")),
  fit: panel(() => import("../stages/fit/FitPanel")),
  prove: panel(() => import("../stages/prove/ProvePanel")),
};

/** Have the other stages of a line at hand before somebody goes there. */
export function fetchStages() {
  requestIdleCallback(() => loads.forEach((load) => void load()));
}
