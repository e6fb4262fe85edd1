import Box from "@mui/material/Box";
import { useEffect, useId, useRef } from "react";
import type { Unit } from "../../api/types";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import type { MakingEditor } from "./useMaking";

export interface Read {
  angle: string;
  plane: string;
  leg: string;
}

interface Props {
  bend: number;
  read: Read;
  setRead: (read: Read) => void;
  unit: Unit;
  expected: { angle_deg: number; clock_deg: number };
  leg_mm: number | null;
  editor: MakingEditor;
}

/** What came out: angle, plane and leg, all of them optional; the plan stands in the empty field. */
export function Readings({ bend, read, setRead, unit, expected, leg_mm, editor }: Props) {
  const index = (editor.making.state.made ?? []).findIndex((item) => item.bend === bend);
  const wrong = editor.standing.remade.misread.filter((item) => item.index === index);
  // a bend that is left open is read as it is now; it is finished in its place
  const move = editor.standing.part.moves.find((item) => item.bend === bend);
  const angle = move?.finish_deg != null ? move.angle_deg : expected.angle_deg;
  const fields = [
    { name: "angle", label: "It came out at", holder: sayAngle(angle), takes: "angle" },
    { name: "plane", label: "It lies at, from A", holder: sayClock(expected.clock_deg), takes: undefined },
    {
      name: "leg",
      label: "Leg, outside to outside",
      holder: leg_mm === null ? "" : sayLength(leg_mm, unit),
      takes: "length",
    },
  ] as const;
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(210px, 1fr))", gap: 2 }}>
      {fields.map((field) => (
        <Reading
          key={field.name}
          label={field.label}
          holder={field.holder}
          takes={field.takes}
          text={read[field.name]}
          problem={wrong.find((item) => item.name === field.name)?.message}
          first={wrong[0]?.name === field.name}
          onText={(text) => setRead({ ...read, [field.name]: text.slice(0, 40) })}
        />
      ))}
    </Box>
  );
}

interface ReadingProps {
  label: string;
  holder: string;
  takes: string | undefined;
  text: string;
  problem: string | undefined;
  /** Of all problems of this bend it is the first: the cursor goes there. */
  first: boolean;
  onText: (text: string) => void;
}

function Reading({ label, holder, takes, text, problem, first, onText }: ReadingProps) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (problem && first) field.current?.select();
  }, [problem, first]);
  return (
    <Box>
      <Box component="label" htmlFor={id} sx={{ fontSize: 20, color: "var(--second)" }}>
        {label}
      </Box>
      <Box
        component="input"
        ref={field}
        id={id}
        value={text}
        placeholder={holder}
        data-takes={takes}
        autoComplete="off"
        aria-invalid={problem !== undefined}
        aria-describedby={problem && `${id}-problem`}
        onChange={(event) => onText(event.target.value)}
        sx={{
          width: "100%",
          minHeight: 64,
          px: 1.5,
          fontSize: 30,
          fontFamily: "Barlow, sans-serif",
          color: "var(--ink)",
          background: "var(--sheet)",
          border: "2px solid",
          borderColor: problem ? "var(--stop)" : "var(--second)",
          borderRadius: "2px",
          "&::placeholder": { color: "var(--second)", opacity: 1 },
        }}
      />
      {problem && (
        <Box role="alert" id={`${id}-problem`} sx={{ color: "var(--stop)", fontSize: 18 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
