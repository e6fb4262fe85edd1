import type { ReactNode } from "react";
import { mainTube } from "./rows";
import { createContext, useContext, useMemo, useState } from "react";
import type { Line, Place, Severity } from "../api/types";

export interface Lit {
  /** The span that is meant; blank for the tube that is shown. */
  span: string;
  from: number;
  to: number;
  severity: Severity;
  key: string;
}

/** What of the chain is chosen: a span, the joint behind a span, or a port. */
export interface ChosenPlace {
  kind: "span" | "joint" | "port";
  id: string;
}

/** The cuts of the way that is looked at, in mm along its tube; `move` asks for one somewhere else. */
export interface Cuts {
  span: string;
  a: number | null;
  b: number | null;
  refused: boolean;
  move: (end: "A" | "B", mm: number) => void;
}

/** How a joint stands under watch, at one end of a span. */
export interface WatchedJoint {
  id: string;
  span: string;
  end: "A" | "B";
  state: string;
  said: string;
}

interface Selection {
  /** Joints that the stage shows on the strip, and the one that is looked at. */
  joints: readonly WatchedJoint[];
  showJoints: (joints: readonly WatchedJoint[]) => void;
  joint: string;
  chooseJoint: (id: string) => void;
  cuts: Cuts | null;
  showCuts: (cuts: Cuts | null) => void;
  place: ChosenPlace | null;
  choosePlace: (place: ChosenPlace | null) => void;
  bend: number | null;
  choose: (bend: number | null) => void;
  lit: Lit | null;
  light: (lit: Lit | null) => void;
  working: string | null;
  showWorking: (id: string | null) => void;
  /** The move whose swing is in the stage, from 1; null for the finished line. */
  swing: number | null;
  showSwing: (move: number | null) => void;
}

const SelectionContext = createContext<Selection | null>(null);

/** One selection for strip, stage, readings and findings: choose it anywhere, see it everywhere. */
export function SelectionProvider({ children, first = null }: { children: ReactNode; first?: ChosenPlace | null }) {
  const [place, setPlace] = useState<ChosenPlace | null>(first);
  const [bend, setBend] = useState<number | null>(null);
  const [lit, light] = useState<Lit | null>(null);
  const [working, showWorking] = useState<string | null>(null);
  const [swing, showSwing] = useState<number | null>(null);
  const [cuts, showCuts] = useState<Cuts | null>(null);
  const [joints, showJoints] = useState<readonly WatchedJoint[]>([]);
  const [joint, chooseJoint] = useState("");
  const value = useMemo(
    () => ({
      joints,
      showJoints,
      joint,
      chooseJoint,
      cuts,
      showCuts,
      place,
      choosePlace: (next: ChosenPlace | null) => {
        setPlace(next);
        setBend(null);
        light(null);
        showSwing(null);
      },
      bend,
      choose: (next: number | null) => {
        setBend(next);
        light(null);
      },
      lit,
      light,
      working,
      showWorking,
      swing,
      showSwing,
    }),
    [joints, joint, cuts, place, bend, lit, working, swing],
  );
  return <SelectionContext.Provider value={value}>{children}</SelectionContext.Provider>;
}

export function useSelection(): Selection {
  const selection = useContext(SelectionContext);
  if (!selection) throw new Error("useSelection needs a SelectionProvider");
  return selection;
}

/** The tube that is worked on: the chosen one, else the one that is made. */
export function tubeOf(line: Line, place: ChosenPlace | null): string {
  const chosen = place?.kind === "span" ? line.spans.find((span) => span.id === place.id) : undefined;
  return chosen?.kind === "rigid" ? chosen.id : (mainTube(line)?.id ?? "");
}

export function litFrom(where: Place, severity: Severity, key: string): Lit | null {
  if (where.from_mm == null || where.to_mm == null) return null;
  return { span: where.span, from: where.from_mm, to: where.to_mm, severity, key };
}
