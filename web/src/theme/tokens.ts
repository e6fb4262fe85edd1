/** Workshop paper and ink; copper is always the tube, or the one action that moves the tube on. */
export interface Tokens {
  paper: string;
  sheet: string;
  rule: string;
  ink: string;
  second: string;
  tube: string;
  bend: string;
  light: string;
  action: string;
  onAction: string;
  hand: string;
  stop: string;
  caution: string;
  note: string;
  good: string;
  nut: string;
  /** Hose, and what is seen on it: the weave of a braid, the edge of what lies inside. */
  hose: string;
  weave: string;
  /** Old tube that stays, and its bends. */
  old: string;
  oldBend: string;
  shadow: string;
}

export const day: Tokens = {
  paper: "#ece9e2",
  sheet: "#f6f4ef",
  rule: "#c6c0b4",
  ink: "#15191b",
  second: "#4c5457",
  tube: "#b5561f",
  bend: "#7d3a13",
  light: "#d98b57",
  action: "#a84b17",
  onAction: "#ffffff",
  hand: "#f3ddcb",
  stop: "#b3121d",
  caution: "#8a5100",
  note: "#2c5a70",
  good: "#2e6b3e",
  nut: "#cfc9bc",
  hose: "#363d40",
  weave: "#9aa3a6",
  old: "#9c968a",
  oldBend: "#76706a",
  shadow: "#dbd6cb",
};

export const night: Tokens = {
  paper: "#15191b",
  sheet: "#1b2022",
  rule: "#3f474a",
  ink: "#f3efe7",
  second: "#b9b4a8",
  tube: "#c9652a",
  bend: "#8d4419",
  light: "#e39a68",
  action: "#d9773a",
  onAction: "#15191b",
  hand: "#3b2a1f",
  stop: "#ff8a8a",
  caution: "#f0b24d",
  note: "#8fc4de",
  good: "#8fd0a0",
  nut: "#6b7376",
  hose: "#4a5458",
  weave: "#aab3b6",
  old: "#847f75",
  oldBend: "#5f5b54",
  shadow: "#262c2f",
};

export type Mode = "day" | "night";

export const tokensOf = (mode: Mode): Tokens => (mode === "day" ? day : night);
