import Box from "@mui/material/Box";
import type { Carries, Catalogue } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { typed } from "../../doc/rows";
import { Section } from "../../ui/Section";
import { sayPressure } from "../../format/units";
import { Field, Pick } from "../../ui/Field";

interface Props {
  editor: LineEditor;
  view: PlanView;
  catalogue: Catalogue;
}

const FLOWS: { id: Carries["flows"]; name: string }[] = [
  { id: "by the ports", name: "as the roles of the ports say" },
  { id: "A to B", name: "from A to B" },
  { id: "B to A", name: "from B to A" },
  { id: "both ways", name: "both ways" },
];

/** What flows in the line, how hard, how hot and which way: the service's usual until something is typed. */
export function CarriedFields({ editor, view, catalogue }: Props) {
  const { document: line, edit } = editor;
  const { carries } = line;
  const duty = catalogue.services.find((row) => row.id === line.service)?.duty;
  const set = (change: Partial<Carries>) => edit((was) => ({ ...was, carries: { ...was.carries, ...change } }));
  const problem = (name: string) => view.plan?.problems.find((item) => item.path === `/carries/${name}`)?.message;
  if (!duty)
    return (
      <Box sx={{ color: "var(--second)", fontSize: 14.5, py: 0.5 }}>
        Say what the line carries: then Bendrel can say what it must stand.
      </Box>
    );
  const usual = catalogue.fluids.find((row) => row.id === duty.fluid);
  const own =
    carries.fluid ||
    carries.pressure ||
    carries.temperature ||
    carries.flow ||
    carries.drives ||
    carries.old_bore.text ||
    carries.flows !== "by the ports";
  const asksWhy = (codes: readonly string[], said: string) =>
    said !== "" || view.plan?.findings.some((finding) => codes.includes(finding.code));
  const flows = view.plan?.chosen?.flows;
  return (
    <Section
      title={`What it carries: ${duty.vacuum ? "vacuum" : sayPressure(view.plan?.chosen?.carried?.duty.working_kpa ?? duty.working_kpa, line.unit)}`}
      hint="The usual of this service stands in until you type your own."
      open={Boolean(own)}
    >
      <Pick
        label="Fluid"
        value={carries.fluid}
        options={[
          { id: "", name: `usual: ${usual?.name ?? duty.fluid}` },
          ...catalogue.fluids.map(({ id, name }) => ({ id, name })),
        ]}
        onChange={(fluid) => set({ fluid })}
      />
      {carries.made_for !== "" && (
        <Pick
          label="Made for"
          value={carries.made_for}
          options={[
            { id: "", name: "the usual of this service" },
            ...catalogue.fluids
              .filter(({ family, id }) => duty.made_for.includes(family) || id === carries.made_for)
              .map(({ id, name }) => ({ id, name })),
          ]}
          onChange={(made_for) => set({ made_for })}
        />
      )}
      <Field
        label="Pressure"
        text={carries.pressure}
        placeholder={`${sayPressure(duty.working_kpa, line.unit)}, usual`}
        problem={problem("pressure")}
        onText={(text) => set({ pressure: text.slice(0, 80) })}
      />
      {asksWhy(["low_pressure"], carries.why_low) && (
        <Field
          label="Why so low"
          text={carries.why_low}
          placeholder="the reason stays with the line"
          onText={(text) => set({ why_low: text.slice(0, 80) })}
        />
      )}
      {asksWhy(["over_pressure"], carries.why_high) && (
        <Field
          label="Why so high"
          text={carries.why_high}
          placeholder="the reason stays with the line"
          onText={(text) => set({ why_high: text.slice(0, 80) })}
        />
      )}
      <Field
        label="Hottest"
        text={carries.temperature}
        placeholder={`${duty.hot_c} °C, usual`}
        problem={problem("temperature")}
        onText={(text) => set({ temperature: text.slice(0, 80) })}
      />
      {asksWhy(["low_heat", "over_heat"], carries.why_heat) && (
        <Field
          label="Why that heat"
          text={carries.why_heat}
          placeholder="the reason stays with the line"
          onText={(text) => set({ why_heat: text.slice(0, 80) })}
        />
      )}
      <Field
        label="Flow"
        text={carries.flow}
        placeholder={duty.flow_lpm > 0 ? `${duty.flow_lpm} L/min, usual` : "none asked"}
        problem={problem("flow")}
        onText={(text) => set({ flow: text.slice(0, 80) })}
      />
      {duty.available_kpa > 0 && !duty.vacuum && (
        <Field
          label="Driven by"
          text={carries.drives}
          placeholder={`${sayPressure(duty.available_kpa, line.unit)}, usual; or a head, ${line.unit === "in" ? "16 in" : "400 mm"}`}
          problem={problem("drives")}
          onText={(text) => set({ drives: text.slice(0, 80) })}
        />
      )}
      <Pick
        label="Which way"
        value={carries.flows}
        options={FLOWS}
        onChange={(id) => set({ flows: id as Carries["flows"] })}
      />
      {carries.flows === "by the ports" && flows && (
        <Box sx={{ fontSize: 14, color: flows === "contradicts" ? "var(--stop)" : "var(--second)", pl: "112px" }}>
          {flows === "contradicts"
            ? "The roles of the two ports contradict each other."
            : flows === "not known"
              ? "Not known: give the ports a role in Look."
              : `It flows ${flows}.`}
        </Box>
      )}
      <Field
        label="Old bore"
        text={carries.old_bore.text}
        placeholder="of the line that was there"
        problem={problem("old_bore")}
        onText={(text) => set({ old_bore: typed(text, line.unit) })}
      />
      <SourceLine source={duty.source} />
    </Section>
  );
}
