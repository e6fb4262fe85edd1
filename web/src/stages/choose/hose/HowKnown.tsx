import Box from "@mui/material/Box";
import { useState } from "react";
import type { Catalogue, HosePattern, HoseSpan, Unit } from "../../../api/types";
import { blankPattern } from "../../../doc/hoseWay";
import { typed } from "../../../doc/rows";
import { Field, Pick } from "../../../ui/Field";
import { Segments } from "../../../ui/Segments";
import { WayFields } from "./WayFields";

interface Props {
  piece: HoseSpan;
  unit: Unit;
  catalogue: Catalogue;
  problemAt: (path: string) => string | undefined;
  onChange: (part: Partial<HoseSpan>) => void;
}

type How = "tape" | HosePattern["by"] | "in place";

const WAYS: { value: How; text: string }[] = [
  { value: "tape", text: "by tape" },
  { value: "wire", text: "by a wire" },
  { value: "old hose", text: "old hose" },
  { value: "in place", text: "cut in place" },
];
const WAS = [
  { id: "", name: "not looked at" },
  { id: "right", name: "right" },
  { id: "pulled", name: "too short, it pulled" },
  { id: "rubbed", name: "too long, it rubbed" },
];

/** How the ends of a hose are known: by tape from one point, by a wire laid in, by the old hose, or found on the
 * machine. What was read one way stays when another is looked at. */
export function HowKnown({ piece, unit, catalogue, problemAt, onChange }: Props) {
  const [looked, look] = useState<How | null>(null);
  const how = looked ?? (piece.way ? "tape" : (piece.pattern?.by ?? "tape"));
  return (
    <>
      <Segments label="How its ends are known" value={how} options={WAYS} onChange={look} />
      <Box sx={{ mt: 1 }}>
        {how === "tape" && (
          <WayFields piece={piece} unit={unit} catalogue={catalogue} problemAt={problemAt} onChange={onChange} />
        )}
        {(how === "wire" || how === "old hose") && (
          <Pattern by={how} piece={piece} unit={unit} problemAt={problemAt} onChange={onChange} />
        )}
        {how === "in place" && <InPlace piece={piece} />}
      </Box>
    </>
  );
}

function Pattern({ by, piece, unit, problemAt, onChange }: Omit<Props, "catalogue"> & { by: HosePattern["by"] }) {
  const other = piece.pattern && piece.pattern.by !== by ? piece.pattern.by : null;
  const pattern = other ? blankPattern(by, unit) : (piece.pattern ?? blankPattern(by, unit));
  const set = (change: Partial<HosePattern>) => onChange({ pattern: { ...pattern, by, ...change } });
  const problem = (name: string) => (other ? undefined : problemAt(`/spans/${piece.id}/pattern/${name}`));
  const clamped = piece.joined === "clamps";
  return (
    <>
      <Box sx={{ fontSize: 14, color: "var(--second)", mb: 0.5 }}>
        {by === "wire"
          ? `Bend soft wire from port to port the way the hose shall lie, mark ${clamped ? "where its ends come to lie on the spigots" : "both seats"}, read its tightest place, then straighten it along a rule.`
          : `Before it comes off: how does it lie, and where is it tightest? Then lay it straight and read it from ${clamped ? "end to end" : "seat to seat"}.`}
        {other && ` What the ${other} said goes when you type here.`}
      </Box>
      <Field
        label={clamped ? "Over all" : "Seat to seat"}
        text={pattern.length.text}
        placeholder="straightened, along a rule"
        takes="length"
        problem={problem("length")}
        onText={(text) => set({ length: typed(text, unit) })}
      />
      <Field
        label="Tightest radius"
        text={pattern.radius.text}
        placeholder="of its middle"
        takes="length"
        problem={problem("radius")}
        onText={(text) => set({ radius: typed(text, unit) })}
      />
      <Field
        label="That is at"
        text={pattern.at.text}
        placeholder="from end A along it"
        takes="length"
        problem={problem("at")}
        onText={(text) => set({ at: typed(text, unit) })}
      />
      {by === "old hose" && (
        <Pick
          label="Its length was"
          value={pattern.was}
          options={WAS}
          onChange={(was) => set({ was: was as HosePattern["was"] })}
        />
      )}
    </>
  );
}

const InPlace = ({ piece }: { piece: HoseSpan }) => (
  <Box component="ol" sx={{ m: 0, pl: 2.5, "& li": { py: 0.25 } }}>
    <li>
      {piece.joined === "clamps"
        ? "Push it on at end A, both clamps loose."
        : "Make end A and start its nut by hand; end B is made last."}
    </li>
    <li>Lay it the way it shall lie, with nothing pulling and nothing near; move what moves through its travel.</li>
    <li>
      {piece.joined === "clamps"
        ? "Mark it at the shoulder of the far spigot, or where it ends on the tube. Cut there."
        : "Mark it where end B begins, cut there, and make end B."}
    </li>
    <li>Type the length that was cut: the next one is made from it.</li>
  </Box>
);
