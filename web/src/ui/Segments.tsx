import Box from "@mui/material/Box";
import { memo, useId } from "react";
import { condensed } from "../theme/theme";
import { useSteady } from "./useSteady";

interface Props<T extends string> {
  label: string;
  value: T;
  options: { value: T; text: string; disabled?: boolean }[];
  onChange: (value: T) => void;
}

/** A choice of a few, all in sight; the chosen one is inked. Radio buttons underneath. */
export function Segments<T extends string>({ onChange, ...shown }: Props<T>) {
  const steady = useSteady({ onChange: onChange as (value: string) => void });
  return <Few {...shown} {...steady} />;
}

const Few = memo(function Few({ label, value, options, onChange }: Props<string>) {
  const name = useId();
  return (
    <Box
      role="radiogroup"
      aria-label={label}
      sx={{
        display: "inline-flex",
        border: "1.5px solid var(--ink)",
        borderRadius: "2px",
        fontFamily: condensed,
        fontWeight: 600,
        fontSize: 16,
      }}
    >
      {options.map((option) => (
        <Box
          key={option.value}
          component="label"
          sx={{
            position: "relative",
            px: 1.25,
            minHeight: 28,
            display: "flex",
            alignItems: "center",
            cursor: option.disabled ? "default" : "pointer",
            opacity: option.disabled ? 0.5 : 1,
            whiteSpace: "nowrap",
            color: option.value === value ? "var(--paper)" : "var(--ink)",
            background: option.value === value ? "var(--ink)" : "transparent",
            "&:focus-within": { outline: "3px solid var(--ink)", outlineOffset: 2 },
            "@media (pointer: coarse)": { minHeight: 44 },
          }}
        >
          <input
            type="radio"
            name={name}
            checked={option.value === value}
            disabled={option.disabled}
            onChange={() => onChange(option.value)}
            style={{
              position: "absolute",
              inset: 0,
              opacity: 0,
              margin: 0,
              width: "100%",
              height: "100%",
              cursor: "inherit",
            }}
          />
          {option.text}
        </Box>
      ))}
    </Box>
  );
});
