import type { Catalogue, ComponentSpan, HoseSpan, Unit } from "../../api/types";
import Box from "@mui/material/Box";
import type { PlanView } from "../../doc/usePlan";
import { typed } from "../../doc/rows";
import { useLearnt } from "../../doc/useLearnt";
import { Ticks } from "../../ui/Ticks";
import { sayLength, sayPressure } from "../../format/units";
import { COMPONENTS } from "../../format/words";
import { Field, Pick } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { OnItsEnd } from "./hose/OnItsEnd";
import { SideFields } from "./SideFields";

const POINTS = [
  { id: "not marked", name: "no arrow seen" },
  { id: "A", name: "end A" },
  { id: "B", name: "end B" },
];
const SOURCE_PORTS = [
  { id: "not known", name: "which one is not known" },
  { id: "A", name: "faces end A" },
  { id: "B", name: "faces end B" },
];
const JOINED: { id: HoseSpan["joined"]; name: string }[] = [
  { id: "clamps", name: "clamps" },
  { id: "crimped", name: "crimped ends" },
  { id: "reusable", name: "reusable ends" },
];
const EACH = [
  { id: "0", name: "none, pushed on" },
  { id: "1", name: "one clamp" },
  { id: "2", name: "two clamps" },
];
export const STATES = [
  { id: "to make", name: "made new" },
  { id: "stays", name: "old, and stays" },
];
const ANGLES = [0, 30, 45, 60, 90, 120, 150, 180].map((angle) => ({
  id: String(angle),
  name: angle === 0 ? "straight" : `${angle}°`,
}));
const PUSH = { loose: "loose", "slides on": "slides on", warm: "goes on warm", "too tight": "too tight" } as const;

interface HoseProps {
  piece: HoseSpan;
  unit: Unit;
  view: PlanView;
  catalogue: Catalogue;
  onChange: (part: Partial<HoseSpan>) => void;
}

export function HoseFields({ piece, unit, view, catalogue, onChange }: HoseProps) {
  const hose = catalogue.hoses.find((row) => row.id === piece.hose);
  const placed = view.plan?.chosen?.pieces.hoses.find((row) => row.stands.span === piece.id);
  const path = `/spans/${piece.id}`;
  // told from the tube that it hangs on: its near side first
  const near = placed?.stands.end === "A" ? "B" : "A";
  const far = near === "A" ? "B" : "A";
  const sides = [
    { side: "near", end: near, name: "Near spigot", at: near === "A" ? "on_a" : "on_b" },
    { side: "far", end: far, name: "Far spigot", at: far === "A" ? "on_a" : "on_b" },
  ] as const;
  const farPlain = far === "A" ? "plain_a" : "plain_b";
  const onTube = (side: string) => placed?.ends.find((one) => one.side === side)?.tube ?? false;
  const problem = (name: string) => view.plan?.problems.find((item) => item.path === `${path}/${name}`)?.message;
  const offers = new Set(placed?.ends.flatMap((side) => side.offers) ?? []);
  const taught = useLearnt()?.joints.find((one) => one.closes === "clamp");
  const clamps = catalogue.clamps.filter((row) => offers.has(row.id) || row.id === piece.clamp);
  const kindOf = (id: string) => catalogue.clamp_kinds.find((row) => row.id === id)?.name ?? id;
  return (
    <>
      <Pick
        label="This hose is"
        value={piece.state}
        options={STATES}
        onChange={(state) => onChange({ state: state as HoseSpan["state"] })}
      />
      <Pick
        label="Class"
        value={hose?.hose_class ?? ""}
        options={catalogue.hose_classes.map(({ id, name }) => ({ id, name }))}
        onChange={(id) => {
          const nearest = catalogue.hoses
            .filter((row) => row.hose_class === id)
            .sort((a, b) => Math.abs(a.id_mm - (hose?.id_mm ?? 0)) - Math.abs(b.id_mm - (hose?.id_mm ?? 0)))[0];
          const clamped = catalogue.hose_classes.find((row) => row.id === id)?.clamps.length;
          if (nearest)
            onChange({ hose: nearest.id, ...(clamped ? { joined: "clamps" } : { joined: "crimped", clamp: null }) });
        }}
      />
      <Pick
        label="Bore"
        value={piece.hose}
        options={catalogue.hoses
          .filter((row) => row.hose_class === hose?.hose_class)
          .map((row) => ({ id: row.id, name: `${row.size}, ${sayLength(row.od_mm, unit)} outside` }))}
        onChange={(id) => onChange({ hose: id })}
      />
      <Field
        label="Length"
        text={piece.length.text}
        placeholder="of the hose itself"
        problem={problem("length")}
        takes="length"
        onText={(text) => onChange({ length: typed(text, unit) })}
      />
      <Pick
        label="Held by"
        value={piece.joined}
        options={JOINED}
        onChange={(id) => onChange({ joined: id as HoseSpan["joined"], ...(id === "clamps" ? {} : { clamp: null }) })}
      />
      {piece.joined === "clamps" && (
        <>
          <Pick
            label="Clamp"
            value={piece.clamp ?? ""}
            options={[
              { id: "", name: "none yet" },
              ...clamps.map((row) => ({ id: row.id, name: `${kindOf(row.kind)} ${row.name} mm` })),
            ]}
            onChange={(id) => onChange({ clamp: id || null })}
          />
          {taught && <Box sx={{ fontSize: 14, color: "var(--second)" }}>{taught.said}</Box>}
          <Pick
            label="Each side"
            value={String(piece.clamps_each)}
            options={EACH}
            onChange={(id) => onChange({ clamps_each: Number(id) })}
          />
          {sides
            .filter(({ side }) => !onTube(side))
            .map(({ name, at }) => (
              <Field
                key={name}
                label={name}
                text={piece[at].text}
                placeholder="its outside diameter"
                problem={problem(at)}
                takes="length"
                onText={(text) => onChange({ [at]: typed(text, unit) })}
              />
            ))}
          {(["a", "b"] as const).map((end) => {
            const lies = placed?.laps[end === "a" ? 0 : 1];
            return (
              <Field
                key={end}
                label={`Pushed on, end ${end.toUpperCase()}`}
                text={piece[`lap_${end}`].text}
                placeholder={lies ? sayLength(lies.mm, unit) : "as usual"}
                problem={problem(`lap_${end}`)}
                takes="length"
                onText={(text) => onChange({ [`lap_${end}`]: typed(text, unit) })}
              />
            );
          })}
        </>
      )}
      {piece.joined !== "clamps" && (
        <>
          {(["a", "b"] as const).map((end) => (
            <SideFields
              key={end}
              label={`End ${end.toUpperCase()}`}
              side={piece[`own_${end}`]}
              usual={piece.joined === "reusable" ? "the usual of its kind" : "as it is ordered"}
              catalogue={catalogue}
              problem={(name) => problem(`own_${end}/${name}`)}
              onChange={(side) => onChange({ [`own_${end}`]: side })}
            />
          ))}
          {(["angle_a", "angle_b"] as const).map((name) => (
            <Pick
              key={name}
              label={name === "angle_a" ? "End A is" : "End B is"}
              value={String(piece[name])}
              options={ANGLES}
              onChange={(angle) => onChange({ [name]: Number(angle) as HoseSpan["angle_a"] })}
            />
          ))}
          {piece.angle_a !== 0 && piece.angle_b !== 0 && (
            <Field
              label="Clocked"
              text={piece.clock}
              placeholder="worked out from its ports"
              takes="angle"
              onText={(clock) => onChange({ clock: clock.slice(0, 80) })}
            />
          )}
        </>
      )}
      <Ticks
        columns
        list={[
          { id: "rubs", text: "it touches something" },
          ...(piece.rubs ? [{ id: "sleeved", text: "a sleeve is on" }] : []),
          ...(piece.joined === "clamps" && !onTube("far") ? [{ id: farPlain, text: "far spigot without bead" }] : []),
        ]}
        done={new Set((["rubs", "sleeved", farPlain] as const).filter((name) => piece[name]))}
        onTick={(id, on) => onChange({ [id]: on })}
      />
      {placed?.ends.map((side) => (
        <Box key={side.side} data-push={side.side} sx={{ fontSize: 14, color: "var(--second)" }}>
          On {side.tube ? "the tube" : side.side === "near" ? "the near spigot" : "the far spigot"} (
          {sayLength(side.on_mm, unit)}): {PUSH[side.fit.push]}, {side.fit.interference >= 0 ? "+" : "−"}
          {Math.abs(side.fit.interference * 100).toFixed(0)} %;{" "}
          {`${sayLength(side.fit.over_mm, unit)} outside before clamping; it lies on it by ${sayLength(side.lap.mm, unit)}.`}
          {hose && piece.clamps_each > 0 && (
            <OnItsEnd
              clamp={catalogue.clamps.find((row) => row.id === piece.clamp)}
              count={piece.clamps_each}
              on={{ on_mm: side.on_mm, bare: side.bare, over_mm: side.fit.over_mm }}
              lap={side.lap}
              gap={catalogue.limits.find((row) => row.id === "clamp_gap_mm")?.value ?? 0}
              unit={unit}
            />
          )}
        </Box>
      ))}
    </>
  );
}

export function ComponentFields({
  piece,
  unit,
  view,
  catalogue,
  onChange,
}: {
  piece: ComponentSpan;
  unit: Unit;
  view: PlanView;
  catalogue: Catalogue;
  onChange: (part: Partial<ComponentSpan>) => void;
}) {
  const placed = view.plan?.chosen?.pieces.components.find((one) => one.stands.span === piece.id);
  const row = catalogue.components.find((one) => one.id === piece.row);
  const offers = placed?.offers ?? [];
  const rows = catalogue.components.filter((one) => one.what === piece.what);
  const listed = rows
    .filter((one) => offers.includes(one.id) || one.id === piece.row)
    .sort((a, b) => offers.indexOf(a.id) - offers.indexOf(b.id));
  const problem = (name: string) =>
    view.plan?.problems.find((item) => item.path === `/spans/${piece.id}/${name}`)?.message;
  return (
    <>
      <Pick
        label="Part"
        value={piece.what}
        options={COMPONENTS.map((id) => ({ id, name: id }))}
        onChange={(id) => onChange({ what: id as ComponentSpan["what"], row: "" })}
      />
      <Pick
        label="Which one"
        value={piece.row}
        options={[{ id: "", name: "one of my own" }, ...listed.map(({ id, name }) => ({ id, name }))]}
        problem={problem("row")}
        onChange={(id) => onChange({ row: id })}
      />
      {row ? (
        <Box sx={{ fontSize: 14, color: "var(--second)" }}>
          End A: {sideName(catalogue, piece.turned ? row.b : row.a)}; end B:{" "}
          {sideName(catalogue, piece.turned ? row.a : row.b)}.{" "}
          {row.rated_kpa != null && `Rated ${sayPressure(row.rated_kpa, unit)}`}
          {row.highest_c != null && `${row.rated_kpa == null ? "Used" : ", used"} up to ${row.highest_c} °C`}.
          <SourceLine source={row.source} />
        </Box>
      ) : (
        (["a", "b"] as const).map((end) => (
          <SideFields
            key={end}
            label={`End ${end.toUpperCase()}`}
            side={piece[`side_${end}`]}
            usual="nobody has said"
            catalogue={catalogue}
            problem={(name) => problem(`side_${end}/${name}`)}
            onChange={(side) => onChange({ [`side_${end}`]: side })}
          />
        ))
      )}
      <Field
        label="Hangs on"
        text={piece.note}
        placeholder="bracket on the frame, rubber"
        onText={(note) => onChange({ note: note.slice(0, 80) })}
      />
      {piece.what === "reservoir" && (
        <Pick
          label="Source port"
          value={piece.source_port}
          options={SOURCE_PORTS}
          onChange={(port) => onChange({ source_port: port as ComponentSpan["source_port"] })}
        />
      )}
      {piece.what !== "adapter" && piece.what !== "reservoir" && (
        <Pick
          label="Points to"
          value={piece.points}
          options={POINTS}
          onChange={(points) => onChange({ points: points as ComponentSpan["points"] })}
        />
      )}
      <Pick
        label="It is"
        value={piece.age}
        options={[
          { id: "new", name: "new" },
          { id: "old", name: "old, and stays" },
        ]}
        onChange={(age) => onChange({ age: age as ComponentSpan["age"] })}
      />
      {piece.what === "restrictor" && (
        <>
          <Field
            label="Bore"
            text={piece.bore.text}
            placeholder="0.8 mm"
            takes="length"
            onText={(text) => onChange({ bore: typed(text, unit) })}
          />
          <Field
            label="Bore’s length"
            text={piece.land.text}
            placeholder="3 mm, usual"
            takes="length"
            onText={(text) => onChange({ land: typed(text, unit) })}
          />
        </>
      )}
    </>
  );
}

/** What one side of a component that is sold is, in words. */
function sideName(catalogue: Catalogue, side: Catalogue["components"][number]["a"]): string {
  // "tapered pipe stud, NPT": a thread that says so itself is not said twice
  const named = [...catalogue.seats, ...catalogue.fittings]
    .find(({ id }) => id === side.of)
    ?.name.replace(/, (\S+)$/, (whole, kind: string) => (side.thread.includes(kind) ? "" : whole));
  const spigot = side.of === "plain" ? "spigot" : `${side.of === "bead" ? "beaded" : "barbed"} spigot`;
  const size = side.thread || (side.on_mm == null ? "" : `${side.on_mm} mm`);
  return [side.kind === "spigot" ? spigot : (named ?? side.of), size].filter(Boolean).join(" ");
}

/** Its length, what it stands, holds and loses, and how often it is renewed, as far as its maker tells it. */
export function ComponentFigures({
  piece,
  unit,
  view,
  catalogue,
  onChange,
}: {
  piece: ComponentSpan;
  unit: Unit;
  view: PlanView;
  catalogue: Catalogue;
  onChange: (part: Partial<ComponentSpan>) => void;
}) {
  const row = catalogue.components.find((one) => one.id === piece.row);
  const problem = (name: string) =>
    view.plan?.problems.find((item) => item.path === `/spans/${piece.id}/${name}`)?.message;
  const placed = view.plan?.chosen?.pieces.components.find((one) => one.stands.span === piece.id);
  const joins = (mm: number | null | undefined) =>
    mm == null ? "its outside diameter" : `${sayLength(mm, unit)}, as the next tube`;
  return (
    <>
      {(
        [
          ["length", "Length", "from port to port"],
          ["on_a", "Joins, A side", joins(placed?.on_a_mm)],
          ["on_b", "Joins, B side", joins(placed?.on_b_mm)],
        ] as const
      )
        .filter(([name]) => name === "length" || row === undefined)
        .map(([name, label, placeholder]) => (
          <Field
            key={name}
            label={label}
            text={piece[name].text}
            placeholder={placeholder}
            problem={problem(name)}
            takes="length"
            onText={(text) => onChange({ [name]: typed(text, unit) })}
          />
        ))}
      {(
        [
          ["rated", "Rated for", row?.rated_kpa == null ? "10 bar" : sayPressure(row.rated_kpa, unit)],
          ["holds", "Holds", "0.4 L"],
          ["loses", "Loses", "0.2 bar"],
          ["service", "Renewed", "every 500 hours"],
        ] as const
      ).map(([name, label, placeholder]) => (
        <Field
          key={name}
          label={label}
          text={piece[name]}
          placeholder={placeholder}
          problem={problem(name)}
          onText={(text) => onChange({ [name]: text.slice(0, 80) })}
        />
      ))}
    </>
  );
}
