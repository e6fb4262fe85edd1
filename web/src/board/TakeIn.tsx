import Box from "@mui/material/Box";
import { useState } from "react";
import type { JobDraft, JobSummary, Unit } from "../api/types";
import { Field } from "../choose/Field";
import { Segments } from "../ui/Segments";

interface Props {
  job: JobSummary;
  /** Keep a change; `kept` is called once it is. */
  change: (part: Partial<JobDraft>, kept?: () => void) => void;
}

interface Typed {
  machine?: string | undefined;
  customer?: string | undefined;
}

/** The machine, whose it is, and when it was promised. Kept when a field is left. */
export function TakeIn({ job, change }: Props) {
  // what is being typed; blank again once it is kept, so that another person's change shows
  const [typed, setTyped] = useState<Typed>({});
  const long = (text: string | undefined) => (text !== undefined && text.length > 200 ? "At most 200 characters." : undefined);
  const keep = () => {
    const { machine, customer } = typed;
    if (long(machine) || long(customer)) return;
    const part = { ...(machine !== undefined && machine !== job.machine ? { machine } : {}), ...(customer !== undefined && customer !== job.customer ? { customer } : {}) };
    // only what was kept is let go: something else may have been typed meanwhile
    const letGo = (was: Typed): Typed => ({ ...(was.machine === machine ? {} : { machine: was.machine }), ...(was.customer === customer ? {} : { customer: was.customer }) });
    if (Object.keys(part).length > 0) change(part, () => setTyped(letGo));
  };
  return (
    <Box component="section" aria-label="Taken in" onBlur={keep} sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(300px, 1fr))", columnGap: 3, mb: 2 }}>
      <Field label="Machine" text={typed.machine ?? job.machine} placeholder="which one, and what about it" problem={long(typed.machine)} onText={(machine) => setTyped((was) => ({ ...was, machine }))} />
      <Field label="Customer" text={typed.customer ?? job.customer} placeholder="whose it is" problem={long(typed.customer)} onText={(customer) => setTyped((was) => ({ ...was, customer }))} />
      <Field label="Promised for" type="date" text={job.promised ?? ""} onText={(promised) => change({ promised: promised || null })} />
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
