import type { ReactNode } from "react";
import { createContext, useContext, useMemo, useState } from "react";
import type { Severity, Where } from "../api/types";

export interface Lit {
  from: number;
  to: number;
  severity: Severity;
  key: string;
}

interface Selection {
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
export function SelectionProvider({ children }: { children: ReactNode }) {
  const [bend, setBend] = useState<number | null>(null);
  const [lit, light] = useState<Lit | null>(null);
  const [working, showWorking] = useState<string | null>(null);
  const [swing, showSwing] = useState<number | null>(null);
  const value = useMemo(
    () => ({
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
    [bend, lit, working, swing],
  );
  return <SelectionContext.Provider value={value}>{children}</SelectionContext.Provider>;
}

export function useSelection(): Selection {
  const selection = useContext(SelectionContext);
  if (!selection) throw new Error("useSelection needs a SelectionProvider");
  return selection;
}

export function litFrom(where: Where, severity: Severity, key: string): Lit | null {
  if (where.from_mm == null || where.to_mm == null) return null;
  return { from: where.from_mm, to: where.to_mm, severity, key };
}
