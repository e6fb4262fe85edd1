import Box from "@mui/material/Box";
import { Input } from "./Input";
import { condensed } from "../theme/theme";

const control = {
  minHeight: 32,
  minWidth: 0,
  px: 0.5,
  font: `500 16px ${condensed}`,
  color: "var(--ink)",
  background: "var(--sheet)",
  border: "1px solid var(--second)",
  borderRadius: "2px",
  "&::placeholder": { color: "var(--second)", opacity: 1 },
  "@media (pointer: coarse)": { minHeight: 44 },
} as const;

/** One word of a few, in a row of entries. */
export function Word<T extends string>({
  list,
  ...shown
}: {
  label: string;
  value: T;
  list: readonly T[];
  onChange: (value: T) => void;
}) {
  return <Choice options={list.map((word) => ({ id: word, name: word }))} {...shown} />;
}

/** One thing of a few with names, in a row of entries. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { id: T; name: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <Box
      component="select"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
      sx={{ ...control, flex: "none", maxWidth: 168 }}
    >
      {options.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Box>
  );
}

interface TypedProps {
  label: string;
  text: string;
  placeholder: string;
  width: number | string;
  /** What is wrong with it; it is shown under the row. */
  wrong?: string | undefined;
  type?: "text" | "date";
  takes?: "length" | "angle";
  /** A short name over it, where the row does not say what it is. */
  named?: string;
  onText: (text: string) => void;
}

/** Something typed in a row of entries. */
export function Typed({ named, ...shown }: TypedProps) {
  if (named === undefined) return <Typing {...shown} />;
  return (
    <Box sx={{ width: shown.width, flex: "none" }}>
      <Box aria-hidden sx={{ fontSize: 13, lineHeight: 1.2, color: "var(--second)" }}>
        {named}
      </Box>
      <Typing {...shown} width="100%" />
    </Box>
  );
}

function Typing({ label, text, placeholder, width, wrong, type = "text", takes, onText }: Omit<TypedProps, "named">) {
  return (
    <Input
      type={type}
      size="row"
      width={width}
      aria-label={label}
      takes={takes}
      text={text}
      placeholder={placeholder}
      wrong={wrong !== undefined}
      aria-description={wrong}
      onText={onText}
    />
  );
}
