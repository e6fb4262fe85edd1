import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { Closing, FunctionCheck, Step } from "../../api/types";
import { withProving } from "../../doc/proving";
import { asNoted } from "../../doc/who";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { Typed } from "../../ui/Entry";
import { Segments } from "../../ui/Segments";

type Works = FunctionCheck["works"];

/** Proof of function beside proof of tightness. */
export function Functions({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const steps = closing.steps.filter((step) => step.kind === "works");
  if (steps.length === 0) return null;
  return (
    <Box component="section" aria-label="Does it work" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Does it work
      </Box>
      {steps.map((step) => (
        <Check key={step.id} editor={editor} step={step} />
      ))}
    </Box>
  );
}

/** The strokes that the circuit's reservoirs should give, worked out from the job as it is saved. */
function Strokes({ editor }: { editor: LineEditor }) {
  const { job_id, id } = editor.opened;
  const circuits = useQuery({
    queryKey: ["circuits", job_id],
    queryFn: () => take(api.GET("/api/jobs/{job_id}/circuits", { params: { path: { job_id } } })),
  });
  const told = (circuits.data?.vacua ?? [])
    .filter((circuit) => circuit.lines.includes(id))
    .flatMap((circuit) => circuit.actuators)
    .filter((actuator) => actuator.strokes !== null);
  return (
    <Box sx={{ fontSize: 14, color: "var(--second)" }}>
      {told.length > 0
        ? `Worked out: ${told.map((one) => `${one.name} ${one.strokes} strokes`).join(", ")}.`
        : "How many is not known: say at each actuator’s port what a stroke takes, and what the reservoir holds."}
    </Box>
  );
}

function Check({ editor, step }: { editor: LineEditor; step: Step }) {
  const check = editor.document.proving.checks.find((one) => one.step === step.run);
  const set = (part: { works?: Works; value?: string; note?: string }) =>
    editor.edit((was) =>
      withProving(was, ({ checks }) => {
        const blank = { step: step.run, works: "" as Works, value: "", note: "", ...asNoted() };
        const next = { ...(checks.find((one) => one.step === step.run) ?? blank), ...part };
        return { checks: [...checks.filter((one) => one.step !== step.run), next] };
      }),
    );
  return (
    <Box data-check={step.run} sx={{ borderBottom: "1px solid var(--rule)", py: 0.75 }}>
      <Box>
        {step.text}
        {step.must && (
          <Box component="span" sx={{ color: "var(--second)" }}>
            {" "}
            Needed for the sign-off.
          </Box>
        )}
      </Box>
      {step.expects === "strokes" && <Strokes editor={editor} />}
      <Box sx={{ display: "flex", alignItems: "end", gap: 0.5, flexWrap: "wrap", mt: 0.5 }}>
        <Segments<Works>
          label={`Works: ${step.text.slice(0, 40)}`}
          value={check?.works ?? ""}
          options={[
            { value: "", text: "not yet" },
            { value: "yes", text: "yes" },
            { value: "no", text: "no" },
            ...(step.if_fitted ? [{ value: "not fitted" as const, text: "not fitted" }] : []),
          ]}
          onChange={(works) => set({ works })}
        />
        {step.asks.includes("value") && (
          <Typed
            label={`Reading: ${step.text.slice(0, 40)}`}
            named="reading"
            text={check?.value ?? ""}
            placeholder="what was read"
            width={130}
            onText={(value) => set({ value: value.slice(0, 24) })}
          />
        )}
        <Typed
          label={`Note: ${step.text.slice(0, 40)}`}
          named="note"
          text={check?.note ?? ""}
          placeholder="what was seen"
          width={150}
          onText={(note) => set({ note: note.slice(0, 400) })}
        />
      </Box>
    </Box>
  );
}
