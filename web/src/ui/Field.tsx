import Box from "@mui/material/Box";
import { memo, useId } from "react";
import type { ReactNode } from "react";
import { control } from "./control";
import { useSteady } from "./useSteady";
import { Input } from "./Input";

interface FieldProps {
  label: string;
  text: string;
  placeholder?: string;
  problem?: string | undefined;
  type?: "text" | "date";
  /** What a gauge may put here. */
  takes?: "length" | "angle";
  onText: (text: string) => void;
}

function Labelled({ label, id, children }: { label: string; id: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "104px 1fr", gap: 1, alignItems: "center", py: 0.4 }}>
      <Box component="label" htmlFor={id} sx={{ color: "var(--second)", lineHeight: 1.2 }}>
        {label}
      </Box>
      <Box sx={{ minWidth: 0 }}>{children}</Box>
    </Box>
  );
}

/** A labelled line of text; what is wrong with it stands under it. */
export function Field({ onText, ...shown }: FieldProps) {
  return <Writing {...shown} {...useSteady({ onText })} />;
}

const Writing = memo(function Writing({ label, text, placeholder, problem, type = "text", takes, onText }: FieldProps) {
  const id = useId();
  return (
    <Labelled label={label} id={id}>
      <Input
        type={type}
        id={id}
        takes={takes}
        text={text}
        placeholder={placeholder}
        wrong={problem !== undefined}
        aria-describedby={problem ? `${id}-said` : undefined}
        onText={onText}
      />
      {problem && (
        <Box role="alert" aria-live="polite" id={`${id}-said`} sx={{ color: "var(--stop)", fontSize: 14 }}>
          {problem}
        </Box>
      )}
    </Labelled>
  );
});

interface PickProps {
  label: string;
  value: string;
  options: { id: string; name: string }[];
  problem?: string | undefined;
  onChange: (id: string) => void;
}

/** A labelled choice from the catalogue. */
export function Pick({ onChange, ...shown }: PickProps) {
  return <Choice {...shown} {...useSteady({ onChange })} />;
}

const Choice = memo(function Choice({ label, value, options, problem, onChange }: PickProps) {
  const id = useId();
  const known = options.some((option) => option.id === value);
  return (
    <Labelled label={label} id={id}>
      <Box
        component="select"
        id={id}
        value={value}
        aria-invalid={problem !== undefined}
        aria-describedby={problem ? `${id}-said` : undefined}
        onChange={(event) => onChange(event.target.value)}
        sx={{ ...control, borderColor: problem ? "var(--stop)" : "var(--second)" }}
      >
        {!known && <option value={value}>{value === "" ? "choose" : `not in the catalogue: ${value}`}</option>}
        {options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </Box>
      {problem && (
        <Box role="alert" aria-live="polite" id={`${id}-said`} sx={{ color: "var(--stop)", fontSize: 14 }}>
          {problem}
        </Box>
      )}
    </Labelled>
  );
});
