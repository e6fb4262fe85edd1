import Box from "@mui/material/Box";
import { useId } from "react";
import type { Length, Unit } from "../../../api/types";
import { typed } from "../../../doc/rows";
import { Input } from "../../../ui/Input";

const AXES = ["x", "y", "z"] as const;
type Axis = (typeof AXES)[number];

interface Props {
  label: string;
  at: Record<Axis, Length>;
  unit: Unit;
  problem: (axis: Axis) => string | undefined;
  onChange: (change: Partial<Record<Axis, Length>>) => void;
}

/** A point from the datum: ahead, to the left, up. Blank is 0. */
export function PointRow({ label, at, unit, problem, onChange }: Props) {
  const id = useId();
  const said = AXES.map(problem).find((text) => text !== undefined);
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: "grid", gridTemplateColumns: "104px 1fr 1fr 1fr", gap: 0.75, alignItems: "center", py: 0.4 }}
    >
      <Box sx={{ color: "var(--second)", lineHeight: 1.2 }}>{label}</Box>
      {AXES.map((axis) => (
        <Input
          key={axis}
          aria-label={`${label}, ${axis}`}
          aria-describedby={said ? `${id}-said` : undefined}
          takes="length"
          text={at[axis].text}
          placeholder={`${axis}  0`}
          wrong={problem(axis) !== undefined}
          onText={(text) => onChange({ [axis]: typed(text, unit) })}
        />
      ))}
      {said && (
        <Box role="alert" id={`${id}-said`} sx={{ gridColumn: "2 / -1", color: "var(--stop)", fontSize: 14 }}>
          {said}
        </Box>
      )}
    </Box>
  );
}
