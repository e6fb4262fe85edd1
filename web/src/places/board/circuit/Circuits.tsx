import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../../api/client";
import type { JobCircuits, Unit } from "../../../api/types";
import { sayPressure } from "../../../format/units";
import { Segments } from "../../../ui/Segments";
import { SourceLine } from "../../../ui/Working";
import { Plan } from "./Plan";

type At = "hot" | "cold";
type CircuitFlow = JobCircuits["flows"][number];
type Vacuum = JobCircuits["vacua"][number];

const SEVERITY = { stop: "Stop", caution: "Caution", note: "Note" } as const;
const lpm = (flow: number) => `${flow.toLocaleString("en", { maximumFractionDigits: flow < 1 ? 2 : 1 })} L/min`;

/** The lines of a job where they are joined: the plan, what flows where, what falls back to rest, what is wrong. */
export function Circuits({ jobId, unit }: { jobId: string; unit: Unit }) {
  const found = useQuery({
    queryKey: ["jobs", jobId, "circuits"],
    queryFn: () => take(api.GET("/api/jobs/{job_id}/circuits", { params: { path: { job_id: jobId } } })),
  });
  const [at, setAt] = useState<At>("hot");
  const circuits = found.data;
  if (!circuits) return null;
  const joined = circuits.groups.filter(
    (group) =>
      group.length > 1 || circuits.vacua.some((one) => one.lines.includes(group[0] ?? "") && one.actuators.length > 0),
  );
  const loose = circuits.findings.filter((one) => !joined.some((group) => group.includes(one.line)));
  if (joined.length === 0 && loose.length === 0)
    return (
      <Box sx={{ py: 2, color: "var(--second)" }}>
        No lines of this job are joined: a port is joined to another line under Choose.
      </Box>
    );
  const solved = circuits.flows.some((one) => one.hot && joined.some((group) => group.includes(one.lines[0] ?? "")));
  return (
    <Box component="section" aria-label="Circuits" sx={{ mt: 1 }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", mb: 1 }}>
        <Typography variant="h2">Circuits</Typography>
        {solved && (
          <Segments
            label="Figures"
            value={at}
            options={[
              { value: "hot", text: "Hot" },
              { value: "cold", text: "Cold" },
            ]}
            onChange={setAt}
          />
        )}
      </Box>
      {joined.map((group) => (
        <OneCircuit key={group.join(" ")} group={group} circuits={circuits} at={at} unit={unit} />
      ))}
      <Findings findings={loose} circuits={circuits} />
    </Box>
  );
}

function OneCircuit({
  group,
  circuits,
  at,
  unit,
}: {
  group: readonly string[];
  circuits: JobCircuits;
  at: At;
  unit: Unit;
}) {
  const flow = circuits.flows.find((one) => one.lines.includes(group[0] ?? ""));
  const vacuum = circuits.vacua.find((one) => one.lines.includes(group[0] ?? ""));
  const solved = at === "hot" ? flow?.hot : flow?.cold;
  const flows = new Map(
    (solved?.lines ?? []).map((one) => [
      one.line,
      `${lpm(Math.abs(one.flow_lpm))} ${one.flow_lpm < 0 ? "from B to A" : "from A to B"}`,
    ]),
  );
  return (
    <Box sx={{ mb: 3 }}>
      <Plan group={group} circuits={circuits} flows={flows} />
      {vacuum ? (
        <OfVacuum vacuum={vacuum} circuits={circuits} unit={unit} volume={flow?.volume_ml ?? 0} />
      ) : (
        flow && <OfFlow flow={flow} at={at} circuits={circuits} unit={unit} />
      )}
      <Findings findings={circuits.findings.filter((one) => group.includes(one.line))} circuits={circuits} />
    </Box>
  );
}

const cell = { p: "4px 12px 4px 0", textAlign: "left", borderBottom: "1px solid var(--rule)" } as const;
const table = {
  borderCollapse: "collapse",
  fontVariantNumeric: "tabular-nums",
  "& th, & td": cell,
  "& th": { ...cell, fontWeight: 600, color: "var(--second)" },
} as const;

const nameOf = (circuits: JobCircuits, line: string) => circuits.lines.find((one) => one.id === line)?.name ?? "";

/** A piece by its place in its line: alike ones are told apart. */
function pieceOf(circuits: JobCircuits, line: string, piece: string): string {
  const spans = circuits.lines.find((one) => one.id === line)?.spans ?? [];
  const at = spans.findIndex((span) => span.span === piece);
  return `piece ${at + 1}, ${spans[at]?.what ?? ""} of ${nameOf(circuits, line)}`;
}

function OfFlow({ flow, at, circuits, unit }: { flow: CircuitFlow; at: At; circuits: JobCircuits; unit: Unit }) {
  const solved = at === "hot" ? flow.hot : flow.cold;
  if (!solved) return <Box sx={{ mt: 1 }}>The flow is not known, because this is not: {flow.unknown.join("; ")}.</Box>;
  return (
    <Box sx={{ mt: 1 }}>
      <Box>
        {flow.fluid}, {solved.temperature_c.toFixed(0)} °C, {sayPressure(flow.available_kpa, unit)} from source to
        return: <b>{lpm(solved.total_lpm)}</b> in all; it holds {(flow.volume_ml / 1000).toFixed(2)} L.
      </Box>
      {solved.branches.length > 1 && (
        <Box component="ul" sx={{ my: 0.5, pl: 2.5 }}>
          {solved.branches.map((one) => (
            <li key={`${one.line} ${one.end}`}>
              {nameOf(circuits, one.line)}: {lpm(one.flow_lpm)}, {(one.share * 100).toFixed(0)} % of it
            </li>
          ))}
        </Box>
      )}
      <Box component="details" sx={{ mt: 0.5 }}>
        <Box
          component="summary"
          sx={{ cursor: "pointer", minHeight: 36, "@media (pointer: coarse)": { minHeight: 44 } }}
        >
          Pressure, element by element
        </Box>
        <Box sx={{ overflowX: "auto" }}>
          <Box component="table" sx={table}>
            <thead>
              <tr>
                <th>Line</th>
                <th>Element</th>
                <th>Flow</th>
                <th>Lost</th>
                <th>Before it</th>
                <th>Behind it</th>
              </tr>
            </thead>
            <tbody>
              {solved.lines.flatMap((line) =>
                line.elements.map((one) => (
                  <tr key={`${line.line} ${one.span}`}>
                    <td>{nameOf(circuits, line.line)}</td>
                    <td>
                      <Box
                        component={Link}
                        to={`/lines/${line.line}/choose?piece=${one.span}`}
                        sx={{ color: "var(--ink)" }}
                      >
                        {one.what}
                      </Box>
                      {solved.weakest?.span === one.span && solved.weakest_line === line.line ? ", loses most" : ""}
                    </td>
                    <td>{lpm(Math.abs(one.flow_lpm))}</td>
                    <td>{sayPressure(Math.abs(one.drop_kpa), unit)}</td>
                    <td>{one.from_kpa == null ? "" : sayPressure(one.from_kpa, unit)}</td>
                    <td>{one.to_kpa == null ? "" : sayPressure(Math.max(0, one.to_kpa), unit)}</td>
                  </tr>
                )),
              )}
            </tbody>
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

function OfVacuum({
  vacuum,
  circuits,
  unit,
  volume,
}: {
  vacuum: Vacuum;
  circuits: JobCircuits;
  unit: Unit;
  volume: number;
}) {
  const breaks = vacuum.breaks.filter((one) => one.falls.length + one.lives.length > 0);
  return (
    <Box sx={{ mt: 1 }}>
      <Box>
        {sayPressure(vacuum.vacuum_kpa, unit)} below the air from {vacuum.sources.join(", ") || "no source"}; it holds{" "}
        {(volume / 1000).toFixed(2)} L.
        {vacuum.all_strokes != null && ` With the source off all together move ${vacuum.all_strokes} times.`}
      </Box>
      {vacuum.actuators.length > 0 && (
        <Box sx={{ overflowX: "auto" }}>
          <Box component="table" sx={table}>
            <thead>
              <tr>
                <th>Actuator</th>
                <th>Colour</th>
                <th>Needs</th>
                <th>Strokes on its reservoir</th>
                <th>Keeps enough for</th>
                <th>At rest</th>
              </tr>
            </thead>
            <tbody>
              {vacuum.actuators.map((one) => (
                <tr key={`${one.line} ${one.end}`}>
                  <td>{one.name}</td>
                  <td>{one.colour || "not said"}</td>
                  <td>{one.least_kpa == null ? "not known" : sayPressure(one.least_kpa, unit)}</td>
                  <td>{one.reservoir == null ? "none" : (one.strokes ?? "not known")}</td>
                  <td>{one.minutes == null ? "not known" : `${one.minutes.toFixed(0)} min`}</td>
                  <td>{one.rest || "not said"}</td>
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
      {breaks.length > 0 && (
        <Box component="details" sx={{ mt: 0.5 }}>
          <Box
            component="summary"
            sx={{ cursor: "pointer", minHeight: 36, "@media (pointer: coarse)": { minHeight: 44 } }}
          >
            When one of them breaks
          </Box>
          <Box sx={{ overflowX: "auto" }}>
            <Box component="table" sx={table}>
              <thead>
                <tr>
                  <th>Broken</th>
                  <th>Falls back to rest at once</th>
                  <th>Lives on its reservoir</th>
                </tr>
              </thead>
              <tbody>
                {breaks.map((one) => (
                  <tr key={`${one.line} ${one.span}`}>
                    <td>{pieceOf(circuits, one.line, one.span)}</td>
                    <td>{one.falls.join(", ") || "none"}</td>
                    <td>{one.lives.join(", ") || "none"}</td>
                  </tr>
                ))}
              </tbody>
            </Box>
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Findings({ findings, circuits }: { findings: JobCircuits["findings"]; circuits: JobCircuits }) {
  if (findings.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Findings of the circuit"
      sx={{ listStyle: "none", m: 0, mt: 1, p: 0, maxWidth: 860 }}
    >
      {findings.map((one) => (
        <Box
          component="li"
          key={`${one.code} ${one.line} ${one.span} ${one.title}`}
          sx={{ borderTop: "1px solid var(--rule)", py: 0.75 }}
        >
          <Box sx={{ fontWeight: 600, color: `var(--${one.severity})` }}>
            {SEVERITY[one.severity]}: {one.title}
          </Box>
          <Box>
            {one.message} {one.advice}{" "}
            <Box
              component={Link}
              to={`/lines/${one.line}/choose${one.span ? `?piece=${one.span}` : one.end ? `?port=${one.end}` : ""}`}
              sx={{ color: "var(--ink)" }}
            >
              To {nameOf(circuits, one.line)}
            </Box>
          </Box>
          <SourceLine source={one.source} />
        </Box>
      ))}
    </Box>
  );
}
