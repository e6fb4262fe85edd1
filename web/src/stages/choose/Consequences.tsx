import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { Chosen, Flow, Line, Tool, Unit } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import { litFrom, useSelection } from "../../doc/select";
import { Section } from "../../ui/Section";
import { condensed, pressable } from "../../theme/theme";
import { sayLength, sayPressure } from "../../format/units";
import { KitTable } from "../../ui/KitTable";

/** What follows from the choices: strength, flow and volume, tools, and the kit list. */
export function Consequences({ line, chosen }: { line: Line; chosen: Chosen }) {
  return (
    <Box sx={{ mt: 2 }}>
      {chosen.strength && chosen.carried && !chosen.carried.duty.vacuum && (
        <Strength chosen={chosen} unit={line.unit} />
      )}
      {chosen.flowing && <Flowing chosen={chosen} unit={line.unit} />}
      <Section title="Tools for this line" hint="Wrenches of either system that go on the hex." open={false}>
        {chosen.tools.map((tool, k) => (
          <ToolRow key={k} tool={tool} />
        ))}
      </Section>
      <KitOfLine line={line} />
    </Box>
  );
}

function Strength({ chosen, unit }: { chosen: Chosen; unit: Unit }) {
  const { light } = useSelection();
  const { strength, carried } = chosen;
  if (!strength || !carried) return null;
  const weakest = strength.elements.find((element) => element.id === strength.weakest);
  const working = carried.duty.working_kpa;
  return (
    <Section
      title={
        weakest?.allowed_kpa != null
          ? `Stands ${sayPressure(weakest.allowed_kpa, unit)}, ${(weakest.allowed_kpa / working).toFixed(1)} × working`
          : "Strength"
      }
      hint={`Works at ${sayPressure(working, unit)}, tested at ${sayPressure(carried.duty.test_kpa, unit)}. The weakest element counts; choose one to see where.`}
      open={false}
    >
      {strength.elements.map((element) => (
        <Box key={element.id} data-element={element.id} sx={{ py: 0.75, borderTop: "1px solid var(--rule)" }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1, alignItems: "baseline" }}>
            <Box
              component="button"
              onClick={() =>
                light(
                  litFrom(
                    element.where,
                    (element.allowed_kpa ?? 0) < working ? "stop" : "note",
                    `strength ${element.id}`,
                  ),
                )
              }
              sx={{
                all: "unset",
                cursor: "pointer",
                fontWeight: element.id === strength.weakest ? 600 : 400,
                "&:hover": { textDecoration: "underline" },
                "&:focus-visible": { outline: "3px solid var(--ink)" },
                ...pressable,
              }}
            >
              {element.name}
              {element.id === strength.weakest && ", the weakest"}
            </Box>
            <Box
              sx={{
                font: `600 17px ${condensed}`,
                whiteSpace: "nowrap",
                color: element.too_hot || (element.allowed_kpa ?? Infinity) < working ? "var(--stop)" : "var(--ink)",
              }}
            >
              {element.too_hot
                ? "too hot"
                : element.approved
                  ? "by law"
                  : element.allowed_kpa == null
                    ? "not known"
                    : sayPressure(element.allowed_kpa, unit)}
            </Box>
          </Box>
          <Box sx={{ fontSize: 14, color: "var(--second)" }}>
            {element.words}
            {element.burst_kpa != null && `; bursts at ${sayPressure(element.burst_kpa, unit)}`}
            {element.kind === "tube" &&
              element.id === strength.governs &&
              strength.tube?.other_kpa != null &&
              ` (${strength.tube.by === "piping" ? "thick-wall" : "piping"} formula ${sayPressure(strength.tube.other_kpa, unit)}, for information)`}
          </Box>
          <SourceLine source={element.source} />
          {element.id === strength.governs && <ShowWorking id="strength" />}
        </Box>
      ))}
    </Section>
  );
}

function ShowWorking({ id, text = "Show the working" }: { id: string; text?: string }) {
  const { showWorking } = useSelection();
  return (
    <Box
      component="button"
      onClick={() => showWorking(id)}
      sx={{
        all: "unset",
        cursor: "pointer",
        font: `600 16px ${condensed}`,
        textDecoration: "underline",
        textUnderlineOffset: 4,
        mr: 2,
        minHeight: 28,
        "&:focus-visible": { outline: "3px solid var(--ink)" },
        "@media (pointer: coarse)": { minHeight: 44 },
      }}
    >
      {text}
    </Box>
  );
}

function Flowing({ chosen, unit }: { chosen: Chosen; unit: Unit }) {
  const { flowing, carried } = chosen;
  if (!flowing || !carried) return null;
  const rows: { name: string; now: Flow | null; old: Flow | null }[] = [
    { name: "cold", now: flowing.cold ?? null, old: flowing.old_cold ?? null },
    { name: "hot", now: flowing.hot ?? null, old: flowing.old_hot ?? null },
  ];
  return (
    <Section
      title={`Holds ${flowing.volume_ml.toFixed(flowing.volume_ml < 10 ? 1 : 0)} ml${flowing.hot ? `, loses ${flowing.hot.drop_kpa == null ? "everything" : sayPressure(flowing.hot.drop_kpa, unit)} hot` : ""}`}
      hint={
        flowing.flow_lpm > 0
          ? `${carried.fluid.name} at ${flowing.flow_lpm} L/min through ${sayLength(flowing.narrowest_mm, unit)} of bore.`
          : `${carried.fluid.name}; no flow is asked of this service. Give one to see the drop.`
      }
      open={false}
    >
      {flowing.hot && (
        <Box
          component="table"
          sx={{
            width: "100%",
            borderCollapse: "collapse",
            "& td, & th": { textAlign: "right", py: 0.4, borderTop: "1px solid var(--rule)", fontWeight: 400 },
            "& th:first-of-type, & td:first-of-type": { textAlign: "left" },
            "& thead th": { color: "var(--second)", borderTop: 0, fontSize: 14 },
          }}
        >
          <thead>
            <tr>
              <th>at</th>
              <th>velocity</th>
              <th>drop</th>
              <th>old bore</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, now, old }) => (
              <tr key={name} data-flow={name}>
                <th scope="row">
                  {name}, {now?.temperature_c} °C
                </th>
                <td>{now ? `${now.velocity_mps.toFixed(1)} m/s ${now.laminar ? "laminar" : "turbulent"}` : ""}</td>
                <td>{now?.drop_kpa == null ? "choked" : sayPressure(now.drop_kpa, unit)}</td>
                <td>{old?.drop_kpa == null ? "–" : sayPressure(old.drop_kpa, unit)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
      {flowing.arrives_hot_lpm != null && flowing.arrives_cold_lpm != null && (
        <Box data-arrives sx={{ pt: 0.5 }}>
          {sayPressure(carried.duty.available_kpa, unit)} may be lost on the way: that drives{" "}
          <b>{flowing.arrives_hot_lpm.toPrecision(2)} L/min</b> hot and {flowing.arrives_cold_lpm.toPrecision(2)} L/min
          cold; {carried.duty.least_lpm} L/min are needed.
        </Box>
      )}
      {flowing.unknown.length > 0 && (
        <Box sx={{ pt: 0.5, color: "var(--caution)" }}>
          Not known: {flowing.unknown.join(", ")}. So the total is not known.
        </Box>
      )}
      {flowing.not_counted.length > 0 && (
        <Box sx={{ pt: 0.5, fontSize: 14, color: "var(--second)" }}>
          Not counted, only its maker knows its loss: {flowing.not_counted.join(", ")}.
        </Box>
      )}
      {flowing.restrictors.map((item) => (
        <Box key={item.stands.span} sx={{ fontSize: 14.5, pt: 0.5 }}>
          Restrictor {item.bore_mm} mm {item.stands.told}: at working pressure {item.cold_lpm.toFixed(2)} L/min cold (
          {sayShare(item.cold_viscous)}), {item.hot_lpm.toFixed(2)} L/min hot ({sayShare(item.hot_viscous)}).
        </Box>
      ))}
      <SourceLine source={carried.fluid.source} />
      <ShowWorking id="volume" text="Working: volume" />
      {flowing.cold?.drop_kpa != null && <ShowWorking id="drop-cold" text="cold" />}
      {flowing.hot?.drop_kpa != null && <ShowWorking id="drop-hot" text="hot" />}
    </Section>
  );
}

const sayShare = (land: number): string => `${Math.round(land * 100)} % of the loss in its land`;

function ToolRow({ tool }: { tool: Tool }) {
  return (
    <Box sx={{ py: 0.5, borderTop: "1px solid var(--rule)" }}>
      <Box sx={{ fontWeight: 500 }}>{tool.what}</Box>
      <Box sx={{ fontSize: 14, color: "var(--second)" }}>
        {tool.why}
        {tool.also.length > 0 && `; also ${tool.also.join(", ")}`}
        {tool.note && `; ${tool.note}`}
      </Box>
    </Box>
  );
}

function KitOfLine({ line }: { line: Line }) {
  const list = useQuery({
    queryKey: ["kit", line],
    queryFn: () => take(api.POST("/api/kit", { body: line })),
    placeholderData: (before) => before,
    gcTime: 10_000,
  });
  if (!list.data) return null;
  return (
    <Section title="Kit list" hint="Everything to have on the bench before it is begun." open={false}>
      <KitTable list={list.data} unit={line.unit} />
    </Section>
  );
}
