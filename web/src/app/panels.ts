import type { ComponentProps, ComponentType } from "react";
import { memo } from "react";
import { fetched } from "../ui/fetched";
import type { Panels, StagePanel } from "../workspace/stages";

/** What one stage asks: fetched when it is gone to, drawn again only when the line or its plan has changed. */
function stage(load: () => Promise<{ default: ComponentType<ComponentProps<StagePanel>> }>): StagePanel {
  const panel = fetched(load);
  return Object.assign(memo(panel), { fetch: panel.fetch });
}

export const PANELS: Panels = {
  look: stage(() => import("../stages/look/LookPanel")),
  remove: stage(() => import("../stages/remove/RemovePanel")),
  measure: stage(() => import("../stages/measure/MeasurePanel")),
  choose: stage(() => import("../stages/choose/ChoosePanel")),
  plan: stage(() => import("../stages/plan/PlanPanel")),
  make: stage(() => import("../stages/make/MakePanel")),
  fit: stage(() => import("../stages/fit/FitPanel")),
  prove: stage(() => import("../stages/prove/ProvePanel")),
};

const SETTLED_MS = 3000;

/** Have the other stages of a line at hand before somebody goes there, once the first one stands. */
export function fetchStages() {
  setTimeout(() => requestIdleCallback(() => Object.values(PANELS).forEach((panel) => void panel.fetch())), SETTLED_MS);
}
