import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useId, useRef } from "react";
import type { Lone, MadeBend, Unit } from "../../api/types";
import { sayAngle, sayClock, sayLength } from "../../format/units";
import type { PlaneSchool } from "../../doc/planes";
import type { MakingEditor } from "../../doc/useMaking";
import { Input } from "../../ui/Input";

export interface Read {
  angle: string;
  plane: string;
  leg: string;
  from_a: string;
  from_b: string;
  rims: string;
}

const NAMES = ["angle", "plane", "from_a", "from_b", "rims", "leg"] as const;
type Name = (typeof NAMES)[number];

const ALWAYS: readonly Name[] = ["angle", "plane", "leg"];

const LABELS: Record<Name, string> = {
  angle: "It came out at",
  plane: "It lies at, from A",
  from_a: "Straight across, end A to its middle",
  from_b: "Straight across, end B to its middle",
  rims: "Straight across, end A to end B",
  leg: "Leg, outside to outside",
};

/** What was read of a bend so far. */
export const readOf = (made: MadeBend | undefined): Read => ({
  angle: made?.angle ?? "",
  plane: made?.plane ?? "",
  leg: made?.leg ?? "",
  from_a: made?.from_a ?? "",
  from_b: made?.from_b ?? "",
  rims: made?.rims ?? "",
});

/** A made bend with what is read of it now. A reading that was read again is no longer the one that was sure. */
export const readAgain = (item: MadeBend, read: Read, school: PlaneSchool, unit: Unit): MadeBend => ({
  ...item,
  ...read,
  plane_by: school,
  unit,
  sure: item.sure.filter((name) => item[name] === read[name]),
});

interface Props {
  bend: number;
  read: Read;
  setRead: (read: Read) => void;
  unit: Unit;
  expected: { angle_deg: number; clock_deg: number };
  leg_mm: number | null;
  /** The first bend made lies where it lies: its plane tells nothing. */
  first: boolean;
  editor: MakingEditor;
}

/** What came out, all of it optional: what would tell most of end B comes first and says what it is worth. */
export function Readings({ bend, read, setRead, unit, expected, leg_mm, first, editor }: Props) {
  const { remade, part } = editor.standing;
  const askedId = useId();
  const index = editor.making.state.made.findIndex((item) => item.bend === bend);
  const wrong = remade.misread.filter((item) => item.index === index);
  const lone = remade.lone.filter((item) => item.bend === bend);
  const again = lone.find((one) => read[one.name] === editor.making.state.made[index]?.[one.name]);
  const sure = (name: Name) => {
    editor.keep((state) => ({
      ...state,
      made: state.made.map((one) => (one.bend === bend ? { ...one, sure: [...one.sure, name] } : one)),
    }));
  };
  // a bend that is left open is read as it is now; it is finished in its place
  const move = part.moves.find((item) => item.bend === bend);
  const angle = move?.finish_deg != null ? move.angle_deg : expected.angle_deg;
  const tells = new Map(remade.known.readings.filter((item) => item.bend === bend).map((item) => [item.name, item]));
  const holders: Record<Name, string> = {
    angle: sayAngle(angle),
    plane: sayClock(expected.clock_deg),
    leg: leg_mm === null ? "" : sayLength(leg_mm, unit),
    from_a: across(tells.get("from_a")?.would_read, unit),
    from_b: across(tells.get("from_b")?.would_read, unit),
    rims: across(tells.get("rims")?.would_read, unit),
  };
  const worth = (name: Name) => tells.get(name)?.known ?? 0;
  const asked = NAMES.filter((name) => tells.has(name) || read[name] !== "" || ALWAYS.includes(name)).filter(
    (name) => name !== "plane" || !first || read.plane !== "",
  );
  const sorted = [...asked].sort((a, b) => worth(b) - worth(a) || NAMES.indexOf(a) - NAMES.indexOf(b));
  const best = remade.known.readings[0];
  // the angle is always at hand, and whatever of the rest tells most
  const most = sorted.filter((name) => name !== "angle").slice(0, 2);
  const shown = sorted.filter(
    (name) => name === "angle" || most.includes(name) || read[name] !== "" || wrong.some((item) => item.name === name),
  );
  const others = sorted.filter((name) => !shown.includes(name));
  const field = (name: Name) => (
    <Reading
      key={name}
      label={LABELS[name]}
      worth={read[name] === "" ? told(remade.known.now, tells.get(name)?.known) : ""}
      holder={holders[name]}
      takes={name === "angle" ? "angle" : name === "plane" ? undefined : "length"}
      text={read[name]}
      problem={wrong.find((item) => item.name === name)?.message}
      first={(wrong[0]?.name ?? lone[0]?.name) === name}
      again={again?.name === name ? askedId : undefined}
      onText={(text) => setRead({ ...read, [name]: text.slice(0, 40) })}
    />
  );
  return (
    <Box>
      {again && (
        <Box role="alert" id={askedId} data-again={again.name} sx={{ fontSize: 20, mb: 1, maxWidth: 900 }}>
          <b>Read {SHORT[again.name]} once more.</b> All else says near {sayRead(again, unit)}
          {again.slip && `; it looks ${again.slip}`}. Until then it counts for nothing.{" "}
          <Button onClick={() => sure(again.name)} sx={{ minHeight: 48, fontSize: 18, ml: 1 }}>
            It does read {read[again.name].trim()}
          </Button>
        </Box>
      )}
      {!again && best && best.known > remade.known.now + 0.01 && (
        <Box role="status" data-tells={`${best.bend} ${best.name}`} sx={{ fontSize: 20, mb: 1 }}>
          {best.bend === bend ? (
            <>
              Read first: <b>{SHORT[best.name]}</b>
            </>
          ) : (
            <>
              <b>{OTHER[best.name](best.bend)}</b> would tell most
            </>
          )}
          . End B is then known in {percent(best.known)} of such parts, now in {percent(remade.known.now)}.
        </Box>
      )}
      <Grid>{shown.map(field)}</Grid>
      {others.length > 0 && (
        <Box component="details" sx={{ mt: 1, fontSize: 18, "& summary": { cursor: "pointer", minHeight: 44, pt: 1 } }}>
          <summary>Other readings</summary>
          <Grid>{others.map(field)}</Grid>
        </Box>
      )}
    </Box>
  );
}

const SHORT: Record<Name, string> = {
  angle: "its angle",
  plane: "where it lies",
  from_a: "straight across from end A",
  from_b: "straight across from end B",
  rims: "end A to end B, straight across",
  leg: "its leg",
};

const OTHER: Record<Name, (bend: number) => string> = {
  angle: (bend) => `The angle of bend ${bend}`,
  plane: (bend) => `Where bend ${bend} lies`,
  from_a: (bend) => `Straight across from end A to bend ${bend}`,
  from_b: (bend) => `Straight across from end B to bend ${bend}`,
  rims: () => "Straight across from end A to end B",
  leg: (bend) => `The leg to bend ${bend}`,
};

const percent = (share: number) => `${Math.round(share * 100)} %`;

const across = (mm: number | undefined, unit: Unit) => (mm === undefined ? "" : sayLength(mm, unit));

/** What one reading would lift the share to, where it lifts it at all. */
function told(now: number, known: number | undefined): string {
  return known !== undefined && known > now + 0.01 ? `→ ${percent(known)}` : "";
}

function Grid({ children }: { children: React.ReactNode }) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(210px, 1fr))", gap: 2 }}>{children}</Box>
  );
}

interface ReadingProps {
  label: string;
  worth: string;
  holder: string;
  takes: "length" | "angle" | undefined;
  text: string;
  problem: string | undefined;
  /** Of all problems of this bend it is the first: the cursor goes there. */
  first: boolean;
  /** The id of what is said of it where it stands alone against all that was told and read otherwise. */
  again?: string | undefined;
  onText: (text: string) => void;
}

/** One large field of the bench. */
export function Reading({ label, worth, holder, takes, text, problem, first, again, onText }: ReadingProps) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const asked = problem !== undefined || again !== undefined;
  useEffect(() => {
    if (asked && first) field.current?.select();
  }, [asked, first]);
  return (
    <Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "baseline", fontSize: 20, color: "var(--second)" }}>
        <Box component="label" htmlFor={id} sx={{ flex: 1 }}>
          {label}
        </Box>
        <Box component="span" sx={{ fontSize: 18, whiteSpace: "nowrap" }}>
          {worth}
        </Box>
      </Box>
      <Input
        ref={field}
        id={id}
        text={text}
        placeholder={holder}
        takes={takes}
        size="bench"
        wrong={asked}
        aria-describedby={problem === undefined ? again : `${id}-problem`}
        onText={onText}
      />
      {problem && (
        <Box role="alert" id={`${id}-problem`} sx={{ color: "var(--stop)", fontSize: 18 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}

/** What a reading that stands alone should be, as its field takes it. */
function sayRead(lone: Lone, unit: Unit): string {
  if (lone.name === "angle") return sayAngle(lone.would_read);
  if (lone.name === "plane") return sayClock(lone.would_read);
  return sayLength(lone.would_read, unit);
}
