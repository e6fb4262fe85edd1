import Box from "@mui/material/Box";
import type { ComponentPropsWithRef } from "react";
import { condensed } from "../theme/theme";

type Size = keyof typeof SIZES;

interface Props extends Omit<ComponentPropsWithRef<"input">, "size" | "value" | "onChange" | "color" | "width"> {
  text: string;
  onText: (text: string) => void;
  /** It cannot be read, or is refused. */
  wrong?: boolean;
  /** What a gauge may put here. */
  takes?: "length" | "angle" | undefined;
  size?: Size;
  width?: number | string;
  sx?: object;
}

const SIZES = {
  field: { minHeight: 34, px: 0.75, font: "400 16px Barlow, sans-serif" },
  row: { minHeight: 32, px: 0.5, font: `500 16px ${condensed}` },
  reading: { minHeight: 28, px: 0.5, font: `600 18px ${condensed}`, borderWidth: 1.5 },
  form: { minHeight: 40, px: 1, font: "400 16px Barlow, sans-serif", borderWidth: 2 },
  large: { minHeight: 60, px: 1, font: "400 24px Barlow, sans-serif", borderWidth: 2 },
  bench: { minHeight: 64, px: 1.5, font: "400 30px Barlow, sans-serif", borderWidth: 2 },
} as const;

/** A line of text to be typed: the one input of all places, in the size of its place. */
export function Input({ text, onText, wrong = false, takes, size = "field", width = "100%", sx, ...rest }: Props) {
  return (
    <Box
      component="input"
      type="text"
      autoComplete="off"
      value={text}
      aria-invalid={wrong}
      {...(takes ? { "data-takes": takes } : {})}
      onChange={(event) => onText(event.target.value)}
      {...rest}
      sx={{
        width,
        minWidth: 0,
        flex: typeof width === "number" ? "none" : undefined,
        color: "var(--ink)",
        background: "var(--sheet)",
        borderStyle: "solid",
        borderWidth: 1,
        borderColor: wrong ? "var(--stop)" : "var(--second)",
        borderRadius: "2px",
        textOverflow: "ellipsis",
        "&::placeholder": { color: "var(--second)", opacity: 1 },
        ...SIZES[size],
        "@media (pointer: coarse)": { minHeight: Math.max(44, SIZES[size].minHeight) },
        ...sx,
      }}
    />
  );
}
