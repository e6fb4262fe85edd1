import type { ComponentType } from "react";
import type { LineEditor } from "../doc/useLine";
import type { PlanView } from "../doc/usePlan";

export const STAGES = ["look", "remove", "measure", "choose", "plan", "make", "fit", "prove"] as const;
export type StageName = (typeof STAGES)[number];

/** What a stage asks, given the line as typed and what is planned from it; its code comes with `fetch`. */
export type StagePanel = ComponentType<{ editor: LineEditor; view: PlanView }> & { fetch: () => Promise<void> };
export type Panels = Record<StageName, StagePanel>;

/** Stages that ask much: the panel has up to half of the screen, in two columns, and the picture is a key to it. */
export const ASK_MUCH: ReadonlySet<StageName> = new Set(["look", "remove", "choose", "fit", "prove"]);

/** Stages that have nothing to ask of a line without a tube. */
export const ABOUT_A_TUBE: ReadonlySet<StageName> = new Set(["measure", "plan"]);
