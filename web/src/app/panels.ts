import { memo } from "react";
import { fetched } from "../ui/fetched";
import type { Panels } from "../workspace/stages";

const panels = {
  look: fetched(() => import("../stages/look/LookPanel")),
  remove: fetched(() => import("../stages/remove/RemovePanel")),
  measure: fetched(() => import("../stages/measure/MeasurePanel")),
  choose: fetched(() => import("../stages/choose/ChoosePanel")),
  plan: fetched(() => import("../stages/plan/PlanPanel")),
  make: fetched(() => import("../stages/make/MakePanel")),
  fit: fetched(() => import("../stages/fit/FitPanel")),
  prove: fetched(() => import("../stages/prove/ProvePanel")),
};

// drawn again only when the line or its plan has changed
export const PANELS: Panels = {
  look: memo(panels.look),
  remove: memo(panels.remove),
  measure: memo(panels.measure),
  choose: memo(panels.choose),
  plan: memo(panels.plan),
  make: memo(panels.make),
  fit: memo(panels.fit),
  prove: memo(panels.prove),
};

const SETTLED_MS = 3000;

/** Have the other stages of a line at hand before somebody goes there, once the first one stands. */
export function fetchStages() {
  setTimeout(() => requestIdleCallback(() => Object.values(panels).forEach((panel) => void panel.fetch())), SETTLED_MS);
}
