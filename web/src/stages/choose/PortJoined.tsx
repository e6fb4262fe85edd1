import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import type { OpenLine, Port } from "../../api/types";
import { Field, Pick } from "../../ui/Field";

interface Props {
  opened: OpenLine;
  port: Port;
  vacuum: boolean;
  onChange: (change: Partial<Port>) => void;
}

const UNITS: { id: NonNullable<Port["unit"]>["kind"]; name: string }[] = [
  { id: "", name: "nothing special" },
  { id: "actuator", name: "an actuator" },
  { id: "switch", name: "a switch" },
  { id: "pump", name: "a pump" },
  { id: "engine manifold", name: "the engine’s manifold" },
  { id: "consumer", name: "a consumer" },
];

/** Where the port stands on another line of the job, and what it feeds. */
export function PortJoined({ opened, port, vacuum, onChange }: Props) {
  const found = useQuery({
    queryKey: ["jobs", opened.job_id, "circuits"],
    queryFn: () => take(api.GET("/api/jobs/{job_id}/circuits", { params: { path: { job_id: opened.job_id } } })),
  });
  const others = found.data?.lines.filter((line) => line.id !== opened.id) ?? [];
  const places = others.flatMap((line) => [
    ...line.spans.flatMap((span) =>
      span.branches.map((branch) => ({
        on: { line: line.id, span: span.span, branch },
        name: `${span.what}${span.branches.length > 1 ? `, port ${branch},` : ""} of ${line.name}`,
      })),
    ),
    ...(["A", "B"] as const).map((branch) => ({
      on: { line: line.id, span: "", branch },
      name: `port ${branch} of ${line.name}`,
    })),
  ]);
  const key = (on: { line: string; span: string; branch: string }) => `${on.line} ${on.span} ${on.branch}`;
  const unit = port.unit;
  const set = (change: Partial<typeof unit>) => onChange({ unit: { ...unit, ...change } });
  return (
    <>
      <Pick
        label="Stands on"
        value={port.on ? key(port.on) : ""}
        options={[
          { id: "", name: "no other line" },
          ...places.map((place) => ({ id: key(place.on), name: place.name })),
        ]}
        onChange={(id) =>
          onChange({ on: (places.find((place) => key(place.on) === id)?.on as Port["on"] | undefined) ?? null })
        }
      />
      {!port.on && (
        <Pick
          label="Beyond it"
          value={unit.kind}
          options={UNITS}
          onChange={(kind) => set({ kind: kind as typeof unit.kind })}
        />
      )}
      {unit.kind === "actuator" && vacuum && (
        <>
          <Field
            label="One stroke"
            text={unit.stroke}
            placeholder="60 ml of air"
            onText={(stroke) => set({ stroke: stroke.slice(0, 80) })}
          />
          <Field
            label="Moves from"
            text={unit.least}
            placeholder="30 kPa of vacuum"
            onText={(least) => set({ least: least.slice(0, 80) })}
          />
          <Field
            label="At rest"
            text={unit.rest}
            placeholder="flap shut"
            onText={(rest) => set({ rest: rest.slice(0, 80) })}
          />
        </>
      )}
    </>
  );
}
