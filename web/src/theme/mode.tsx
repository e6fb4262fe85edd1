import createCache from "@emotion/cache";
import { CacheProvider, ThemeContext } from "@emotion/react";
import CssBaseline from "@mui/material/CssBaseline";
import DefaultPropsProvider from "@mui/material/DefaultPropsProvider";
import type { ComponentProps, ReactNode } from "react";
import { createContext, useContext, useEffect, useMemo, useState } from "react";
import { keep, kept } from "../api/kept";
import { themeOf } from "./theme";
import type { Mode, Tokens } from "./tokens";
import { tokensOf } from "./tokens";

const KEPT = "bendrel.mode";

interface ModeState {
  mode: Mode;
  tokens: Tokens;
  setMode: (mode: Mode) => void;
}

const ModeContext = createContext<ModeState | null>(null);

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content;
const cache = createCache({ key: "b", ...(nonce ? { nonce } : {}) });

function firstMode(): Mode {
  const mode = kept(KEPT);
  if (mode === "day" || mode === "night") return mode;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "night" : "day";
}

export function ModeProvider({ children }: { children: ReactNode }) {
  const [mode, setMode] = useState<Mode>(firstMode);
  useEffect(() => keep(KEPT, mode), [mode]);
  const theme = useMemo(() => themeOf(mode), [mode]);
  const state = useMemo(() => ({ mode, setMode, tokens: tokensOf(mode) }), [mode]);
  return (
    <CacheProvider value={cache}>
      <ModeContext.Provider value={state}>
        {/* what the component kit's own provider does, without its colour schemes, of which none is used here */}
        <ThemeContext.Provider value={theme}>
          <DefaultPropsProvider value={theme.components as ComponentProps<typeof DefaultPropsProvider>["value"]}>
            <CssBaseline />
            {children}
          </DefaultPropsProvider>
        </ThemeContext.Provider>
      </ModeContext.Provider>
    </CacheProvider>
  );
}

export function useMode(): ModeState {
  const state = useContext(ModeContext);
  if (!state) throw new Error("useMode needs a ModeProvider");
  return state;
}
