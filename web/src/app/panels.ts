import { memo } from "react";
import { ChoosePanel } from "../stages/choose/ChoosePanel";
import { FitPanel } from "../stages/fit/FitPanel";
import { LookPanel } from "../stages/look/LookPanel";
import { MakePanel } from "../stages/make/MakePanel";
import { MeasurePanel } from "../stages/measure/MeasurePanel";
import { PlanPanel } from "../stages/plan/PlanPanel";
import { ProvePanel } from "../stages/prove/ProvePanel";
import { RemovePanel } from "../stages/remove/RemovePanel";
import type { Panels } from "../workspace/stages";

// drawn again only when the line or its plan has changed
export const PANELS: Panels = {
  look: memo(LookPanel),
  remove: memo(RemovePanel),
  measure: memo(MeasurePanel),
  choose: memo(ChoosePanel),
  plan: memo(PlanPanel),
  make: memo(MakePanel),
  fit: memo(FitPanel),
  prove: memo(ProvePanel),
};
