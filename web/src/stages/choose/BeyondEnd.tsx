import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Beyond, Catalogue, HosePiece, LineEnd, PartPiece, Unit } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { editBeyond } from "../../doc/edits";
import { typed } from "../../doc/rows";
import { condensed } from "../../theme/theme";
import { Ticks } from "../../ui/Ticks";
import { sayLength } from "../../format/units";
import { Field, Pick } from "../../ui/Field";

interface Props {
  end: "A" | "B";
  editor: LineEditor;
  view: PlanView;
  catalogue: Catalogue;
}

const PARTS: PartPiece["part"][] = [
  "check valve",
  "reservoir",
  "filter",
  "restrictor",
  "shut-off valve",
  "cooler",
  "adapter",
];
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
const JOINED: { id: HosePiece["joined"]; name: string }[] = [
  { id: "clamps", name: "clamps" },
  { id: "crimped", name: "crimped ends" },
  { id: "reusable", name: "reusable ends" },
];
const EACH = [
  { id: "0", name: "none, pushed on" },
  { id: "1", name: "one clamp" },
  { id: "2", name: "two clamps" },
];
const PUSH = { loose: "loose", "slides on": "slides on", warm: "goes on warm", "too tight": "too tight" } as const;

const blankHose = (hose: string, unit: Unit): HosePiece => ({
  kind: "hose",
  hose,
  length: typed("", unit),
  joined: "clamps",
  clamp: null,
  clamps_each: 2,
  near: typed("", unit),
  far: typed("", unit),
  far_plain: false,
  rubs: false,
  sleeved: false,
});
const blankPart = (unit: Unit): PartPiece => ({
  kind: "part",
  part: "filter",
  points: "not marked",
  source_port: "not known",
  age: "new",
  bore: typed("", unit),
  land: typed("", unit),
  note: "",
});

/** What lies between one end of the tube and its port: hoses and parts, from the tube outwards. */
export function BeyondEnd({ end, editor, view, catalogue }: Props) {
  const { document: line, edit } = editor;
  const key = end === "A" ? "end_a" : "end_b";
  const pieces = line[key].beyond;
  const set = (beyond: Beyond[]) => edit((was) => ({ ...was, [key]: { ...was[key], beyond } satisfies LineEnd }));
  const change = (at: number, part: Partial<HosePiece> | Partial<PartPiece>) =>
    set(pieces.map((piece, k) => (k === at ? ({ ...piece, ...part } as Beyond) : piece)));
  const add = (row: Beyond) => edit((was) => editBeyond(was, end, { kind: "insert", at: was[key].beyond.length, row }));
  const usual = catalogue.services.find((row) => row.id === line.service)?.hose_class;
  const right = catalogue.hoses.find((row) => row.hose_class === usual) ?? catalogue.hoses[0];
  return (
    <Box aria-label={`Beyond end ${end}`} component="section">
      {pieces.map((piece, k) => (
        <Box key={k} data-piece={`${end}${k + 1}`} sx={{ borderLeft: "3px solid var(--rule)", pl: 1.25, my: 1 }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
            <Box sx={{ font: `600 17px ${condensed}` }}>
              {piece.kind === "hose" ? "Hose" : piece.part} {pieces.length > 1 && `(${k + 1} from the tube)`}
            </Box>
            <Button
              size="small"
              variant="text"
              aria-label={`Take out piece ${k + 1} beyond ${end}`}
              onClick={() => edit((was) => editBeyond(was, end, { kind: "remove", at: k }))}
              sx={{ minWidth: 36 }}
            >
              ✕
            </Button>
          </Box>
          {piece.kind === "hose" ? (
            <HoseFields
              piece={piece}
              unit={line.unit}
              end={end}
              at={k}
              view={view}
              catalogue={catalogue}
              onChange={(part) => change(k, part)}
            />
          ) : (
            <PartFields piece={piece} unit={line.unit} onChange={(part) => change(k, part)} />
          )}
        </Box>
      ))}
      {pieces.length < 6 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
          <Button variant="text" size="small" onClick={() => add(blankHose(right?.id ?? "", line.unit))}>
            + hose beyond {end}
          </Button>
          <Button variant="text" size="small" onClick={() => add(blankPart(line.unit))}>
            + part beyond {end}
          </Button>
        </Box>
      )}
    </Box>
  );
}

interface HoseProps {
  piece: HosePiece;
  unit: Unit;
  end: "A" | "B";
  at: number;
  view: PlanView;
  catalogue: Catalogue;
  onChange: (part: Partial<HosePiece>) => void;
}

function HoseFields({ piece, unit, end, at, view, catalogue, onChange }: HoseProps) {
  const hose = catalogue.hoses.find((row) => row.id === piece.hose);
  const placed = view.plan?.chosen?.pieces.hoses.find((row) => row.end === end && row.index === at);
  const path = `/end_${end.toLowerCase()}/beyond/${at}`;
  const problem = (name: string) => view.plan?.problems.find((item) => item.path === `${path}/${name}`)?.message;
  const offers = new Set(placed?.ends.flatMap((side) => side.offers) ?? []);
  const clamps = catalogue.clamps.filter((row) => offers.has(row.id) || row.id === piece.clamp);
  const kindOf = (id: string) => catalogue.clamp_kinds.find((row) => row.id === id)?.name ?? id;
  return (
    <>
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
          .map((row) => ({ id: row.id, name: `${row.size}, ${row.od_mm} mm outside` }))}
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
        onChange={(id) => onChange({ joined: id as HosePiece["joined"], ...(id === "clamps" ? {} : { clamp: null }) })}
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
          <Pick
            label="Each side"
            value={String(piece.clamps_each)}
            options={EACH}
            onChange={(id) => onChange({ clamps_each: Number(id) })}
          />
          {at > 0 && (
            <Field
              label="Near spigot"
              text={piece.near.text}
              placeholder="its outside diameter"
              problem={problem("near")}
              takes="length"
              onText={(text) => onChange({ near: typed(text, unit) })}
            />
          )}
          <Field
            label="Far spigot"
            text={piece.far.text}
            placeholder="its outside diameter"
            problem={problem("far")}
            takes="length"
            onText={(text) => onChange({ far: typed(text, unit) })}
          />
        </>
      )}
      <Ticks
        columns
        list={[
          { id: "rubs", text: "it touches something" },
          ...(piece.rubs ? [{ id: "sleeved", text: "a sleeve is on" }] : []),
          ...(piece.joined === "clamps" ? [{ id: "far_plain", text: "far spigot without bead" }] : []),
        ]}
        done={new Set((["rubs", "sleeved", "far_plain"] as const).filter((name) => piece[name]))}
        onTick={(id, on) => onChange({ [id]: on })}
      />
      {placed?.ends.map((side) => (
        <Box key={side.side} data-push={side.side} sx={{ fontSize: 14, color: "var(--second)" }}>
          On {side.side === "near" ? (at > 0 ? "the near spigot" : "the tube") : "the far spigot"} (
          {sayLength(side.on_mm, unit)}): {PUSH[side.fit.push]}, {side.fit.interference >= 0 ? "+" : "−"}
          {Math.abs(side.fit.interference * 100).toFixed(0)} %; {side.fit.over_mm.toFixed(1)} mm outside before clamping
          {side.overlap_mm != null && `; clamps want ${sayLength(side.overlap_mm, unit)} of overlap`}.
        </Box>
      ))}
    </>
  );
}

function PartFields({
  piece,
  unit,
  onChange,
}: {
  piece: PartPiece;
  unit: Unit;
  onChange: (part: Partial<PartPiece>) => void;
}) {
  return (
    <>
      <Pick
        label="Part"
        value={piece.part}
        options={PARTS.map((id) => ({ id, name: id }))}
        onChange={(id) => onChange({ part: id as PartPiece["part"] })}
      />
      {piece.part === "adapter" && (
        <Field
          label="From, to"
          text={piece.note ?? ""}
          placeholder="M10x1 port to 3/8-24, 37°"
          onText={(note) => onChange({ note: note.slice(0, 80) })}
        />
      )}
      {piece.part === "reservoir" && (
        <Pick
          label="Source port"
          value={piece.source_port}
          options={SOURCE_PORTS}
          onChange={(port) => onChange({ source_port: port as PartPiece["source_port"] })}
        />
      )}
      {piece.part !== "adapter" && piece.part !== "reservoir" && (
        <Pick
          label="Points to"
          value={piece.points}
          options={POINTS}
          onChange={(points) => onChange({ points: points as PartPiece["points"] })}
        />
      )}
      <Pick
        label="It is"
        value={piece.age}
        options={["new", "old"].map((id) => ({ id, name: id }))}
        onChange={(age) => onChange({ age: age as PartPiece["age"] })}
      />
      {piece.part === "restrictor" && (
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
