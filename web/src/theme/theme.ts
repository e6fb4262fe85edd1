import { createTheme } from "@mui/material/styles";
import type { Mode } from "./tokens";
import { tokensOf } from "./tokens";

/** For a screen reader only. */
export const unseen = {
  position: "absolute",
  width: "1px",
  height: "1px",
  overflow: "hidden",
  clipPath: "inset(50%)",
  whiteSpace: "nowrap",
} as const;
/** A button that is dressed as text, high enough for a finger where fingers press. */
export const pressable = {
  "@media (pointer: coarse)": { display: "inline-flex", alignItems: "center", minHeight: 44 },
} as const;
export const condensed = "'Barlow Condensed', 'Barlow', sans-serif";

/** The component kit dressed as the workshop: ruled lines, square corners, no shadows. */
export function themeOf(mode: Mode) {
  const t = tokensOf(mode);
  return createTheme({
    palette: {
      mode: mode === "day" ? "light" : "dark",
      primary: { main: t.ink, contrastText: t.paper },
      secondary: { main: t.action, contrastText: t.onAction },
      error: { main: t.stop },
      warning: { main: t.caution },
      info: { main: t.note },
      success: { main: t.good },
      background: { default: t.paper, paper: t.sheet },
      text: { primary: t.ink, secondary: t.second },
      divider: t.rule,
    },
    shape: { borderRadius: 2 },
    // what can be clicked stands still at once: a quick hand never lands beside it
    motion: { reducedMotion: "always" },
    typography: {
      fontFamily: "'Barlow', sans-serif",
      fontSize: 14,
      body1: { fontSize: 15 },
      body2: { fontSize: 14 },
      h1: { fontFamily: condensed, fontWeight: 600, fontSize: 28 },
      h2: { fontFamily: condensed, fontWeight: 600, fontSize: 19 },
      button: { fontFamily: condensed, fontWeight: 600, fontSize: 17, textTransform: "none" },
    },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          ":root": Object.fromEntries(Object.entries(t).map(([name, value]) => [`--${name}`, value])),
          "html, body, #root": { height: "100%" },
          a: { color: t.ink },
          // what is folded is measured as everything else is
          "details::details-content": { boxSizing: "inherit" },
          body: { fontVariantNumeric: "tabular-nums", colorScheme: mode === "day" ? "light" : "dark" },
          ":focus-visible": { outline: `3px solid ${t.ink}`, outlineOffset: 1 },
          "@media (pointer: coarse)": {
            summary: { minHeight: 44, alignContent: "center" },
            // a link of its own; one in a sentence or a table is as high as its line
            "main a": { display: "inline-flex", alignItems: "center", minHeight: 44 },
            "main :is(p, li, td, th, [data-inline]) a": { display: "inline", minHeight: 0 },
          },
        },
      },
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiCheckbox: { styleOverrides: { root: { "@media (pointer: coarse)": { padding: 10 } } } },
      MuiButton: {
        defaultProps: { disableElevation: true, variant: "outlined" },
        styleOverrides: {
          sizeSmall: { fontSize: 16 },
          root: {
            minHeight: 36,
            lineHeight: 1.2,
            borderColor: t.ink,
            "@media (pointer: coarse)": { minHeight: 44 },
          },
        },
      },
      MuiMenu: {
        styleOverrides: { paper: { boxShadow: "none", border: `1.5px solid ${t.ink}`, backgroundImage: "none" } },
      },
    },
  });
}
