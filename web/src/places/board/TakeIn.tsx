import Box from "@mui/material/Box";
import { useState } from "react";
import type { JobDraft, JobSummary, Unit } from "../../api/types";
import { Field } from "../../ui/Field";
import { Segments } from "../../ui/Segments";

interface Props {
  job: JobSummary;
  /** Keep a change; `kept` is called once it is. */
  change: (part: Partial<JobDraft>, kept?: () => void) => void;
}

type Key = "machine" | "customer" | "parked" | "tried";
type Typed = Partial<Record<Key, string>>;

const FIELDS: { key: Key; label: string; placeholder: string; most: number }[] = [
  { key: "machine", label: "Machine", placeholder: "which one, and what about it", most: 200 },
  { key: "customer", label: "Customer", placeholder: "whose it is", most: 200 },
  { key: "parked", label: "Parked, for", placeholder: "part ordered, second opinion; blank: in work", most: 200 },
  { key: "tried", label: "Tried so far", placeholder: "what was done, and what came of it", most: 500 },
];

/** The machine, whose it is, when it was promised, and what it waits for. Kept when a field is left. */
export function TakeIn({ job, change }: Props) {
  // what is being typed; dropped once it is kept, so that another person's change shows
  const [typed, setTyped] = useState<Typed>({});
  const changed = FIELDS.filter(({ key }) => typed[key] !== undefined && typed[key] !== job[key]);
  const long = (key: Key, most: number) =>
    (typed[key]?.length ?? 0) > most ? `At most ${most} characters.` : undefined;
  const keep = () => {
    if (changed.length === 0 || FIELDS.some(({ key, most }) => long(key, most))) return;
    const part = Object.fromEntries(changed.map(({ key }) => [key, typed[key]])) as Partial<Record<Key, string>>;
    // only what was kept is let go: something else may have been typed meanwhile
    change(part, () =>
      setTyped((was) => Object.fromEntries(Object.entries(was).filter(([key, text]) => part[key as Key] !== text))),
    );
  };
  return (
    <Box
      component="section"
      aria-label="Taken in"
      onBlur={keep}
      sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(300px, 1fr))", columnGap: 3, mb: 2 }}
    >
      {FIELDS.map(({ key, label, placeholder, most }) => (
        <Field
          key={key}
          label={label}
          text={typed[key] ?? job[key]}
          placeholder={placeholder}
          problem={long(key, most)}
          onText={(text) => setTyped((was) => ({ ...was, [key]: text }))}
        />
      ))}
      <Field
        label="Promised for"
        type="date"
        text={job.promised ?? ""}
        onText={(promised) => change({ promised: promised || null })}
      />
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, py: 0.4 }}>
        <Box sx={{ color: "var(--second)", width: 104 }}>New lines in</Box>
        <Segments<Unit>
          label="Unit of new lines"
          value={job.unit}
          options={[
            { value: "in", text: "inch" },
            { value: "mm", text: "mm" },
          ]}
          onChange={(unit) => change({ unit })}
        />
      </Box>
    </Box>
  );
}
