import Box from "@mui/material/Box";
import { memo } from "react";
import { condensed } from "../../theme/theme";
import { useSteady } from "../../ui/useSteady";
import type { Method } from "./methods";
import { METHOD_WORDS } from "./methods";

interface Props<T extends Method> {
  label: string;
  value: T;
  list: readonly T[];
  onChange: (method: T) => void;
}

/** How one place on the line was read; methods may be mixed row by row. */
export function MethodPick<T extends Method>({ onChange, ...shown }: Props<T>) {
  const steady = useSteady({ onChange: onChange as (method: Method) => void });
  return <Choice {...shown} {...steady} />;
}

const Choice = memo(function Choice({ label, value, list, onChange }: Props<Method>) {
  return (
    <Box
      component="select"
      aria-label={label}
      title={METHOD_WORDS[value].long}
      value={value}
      onChange={(event) => onChange(event.target.value as Method)}
      sx={{
        width: "100%",
        minHeight: 30,
        border: 0,
        px: 0,
        font: `500 16px ${condensed}`,
        color: "var(--second)",
        background: "transparent",
        appearance: "none",
        cursor: "pointer",
        textDecoration: "underline dotted",
        textUnderlineOffset: 4,
        "& option": { color: "var(--ink)", background: "var(--sheet)" },
        "@media (pointer: coarse)": { minHeight: 44 },
      }}
    >
      {list.map((method) => (
        <option key={method} value={method} title={METHOD_WORDS[method].long}>
          {METHOD_WORDS[method].short}
        </option>
      ))}
    </Box>
  );
});
