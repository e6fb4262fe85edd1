import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useCallback, useEffect, useMemo, useState } from "react";
import { api, take } from "../../api/client";
import type { Line, MendMethod, MendOffer, MendOrder, Mending, PlacedDamage, Unit, VerdictWord } from "../../api/types";
import { mend, stillDamaged } from "../../doc/chain";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { sayLength } from "../../format/units";
import { condensed } from "../../theme/theme";
import { Field, Pick } from "../../ui/Field";
import { useNotice } from "../../ui/notice";
import { useAnswer } from "../../ui/useAnswer";
import { VerdictMark } from "../../ui/VerdictMark";
import { SourceLine } from "../../ui/Working";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const MARKS: Record<MendOffer["verdict"], VerdictWord> = {
  right: "right",
  acceptable: "acceptable",
  care: "caution",
  refused: "refused",
};

/** How to mend a damage: every way ranked, with its cuts on the strip, and what deciding on one makes of the line. */
export function MendWays({ editor, view }: Props) {
  const looked = view.plan?.looked;
  const placed = looked ? stillDamaged(editor.document, looked) : [];
  const gone = (looked?.damage.length ?? 0) > placed.length;
  const [chosen, setChosen] = useState("");
  const damage = placed.find((one) => one.id === chosen) ?? placed[0];
  return (
    <Box component="section" aria-label="How to mend it" sx={{ mt: 2 }}>
      <Typography variant="h2">How to mend it</Typography>
      {damage ? (
        <>
          {placed.length > 1 && (
            <Pick
              label="Damage"
              value={damage.id}
              options={placed.map((one) => ({ id: one.id, name: saidOf(one, editor.document.unit) }))}
              onChange={setChosen}
            />
          )}
          <Ways key={damage.id} editor={editor} damage={damage} />
        </>
      ) : (
        <Box sx={{ color: "var(--second)" }}>
          {gone
            ? "The damage is cut out; the strip shows what stays and what is new."
            : "Note where the damage is, from end A, and every way to mend it is laid out here."}
        </Box>
      )}
    </Box>
  );
}

const saidOf = (damage: PlacedDamage, unit: Unit) =>
  `${damage.kind}, ${sayLength(damage.from_mm, unit)} to ${sayLength(damage.to_mm, unit)}`;

function Ways({ editor, damage }: { editor: LineEditor; damage: PlacedDamage }) {
  const { document: line } = editor;
  const { showCuts, choosePlace } = useSelection();
  const notice = useNotice();
  const [order, setOrder] = useState<MendOrder>({ damage: damage.id, cut_a: "", cut_b: "" });
  const [method, setMethod] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState("");
  const ask = useMemo(() => () => take(api.POST("/api/mend", { body: { document: line, order } })), [line, order]);
  const { made, problem: refused } = useAnswer<Mending>(ask);
  const shown = useKept(made);
  const offer = shown?.offers.find((one) => one.method === method) ?? shown?.offers[0];
  const move = useCallback(
    (end: "A" | "B", mm: number) =>
      setOrder((was) => ({ ...was, [end === "A" ? "cut_a" : "cut_b"]: `${mm.toFixed(1)} mm` })),
    [],
  );
  useEffect(() => {
    if (!shown || !offer) return;
    showCuts({
      span: shown.span,
      a: offer.cut_a_mm ?? null,
      b: offer.cut_b_mm ?? null,
      refused: offer.verdict === "refused",
      move,
    });
    return () => showCuts(null);
  }, [shown, offer, move, showCuts]);
  if (!shown) return <Box sx={{ color: "var(--second)" }}>{refused || "…"}</Box>;
  const decide = () => {
    if (!offer) return;
    void mend(editor, order, offer.method, reason).then((done) => {
      setProblem(done.problem);
      if (done.span === null) return;
      choosePlace({ kind: "span", id: done.span });
      notice({ text: "The line is rewritten; undo brings the old one back." });
    });
  };
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", columnGap: 2 }}>
        <Field
          label="Cut, A side"
          text={order.cut_a ?? ""}
          placeholder={offer?.cut_a_mm == null ? "none" : sayLength(offer.cut_a_mm, line.unit)}
          takes="length"
          onText={(cut_a) => setOrder((was) => ({ ...was, cut_a }))}
        />
        <Field
          label="Cut, B side"
          text={order.cut_b ?? ""}
          placeholder={offer?.cut_b_mm == null ? "none" : sayLength(offer.cut_b_mm, line.unit)}
          takes="length"
          onText={(cut_b) => setOrder((was) => ({ ...was, cut_b }))}
        />
      </Box>
      <Box role="status" sx={{ fontSize: 14, color: "var(--second)" }}>
        {refused || shown.snapped.join(" ") || "Type a cut, or drag it on the strip."}
        {shown.stagger_mm != null &&
          ` ${shown.twin_seen ? "Its twin lies beside it" : "If a twin lies beside it"}: cuts of the two stand ${sayLength(shown.stagger_mm, line.unit)} apart.`}
      </Box>
      <Box component="ol" sx={{ m: 0, mt: 1, p: 0, listStyle: "none" }}>
        {shown.offers.map((one) => (
          <Way
            key={one.method}
            offer={one}
            way={shown.methods.find((row) => row.id === one.method)}
            unit={line.unit}
            open={one === offer}
            onOpen={() => setMethod(one.method)}
          />
        ))}
      </Box>
      {offer && offer.verdict !== "refused" && (
        <Box sx={{ borderTop: "1.5px solid var(--ink)", pt: 1 }}>
          <Field
            label="Why this way"
            text={reason}
            placeholder="kept with the line"
            problem={problem || undefined}
            onText={(text) => setReason(text.slice(0, 400))}
          />
          <Button variant="contained" onClick={decide} sx={{ mt: 1 }}>
            Mend it: {offer.name}
          </Button>
        </Box>
      )}
    </>
  );
}

/** The newest answer, kept while the next one is under way. */
function useKept<T>(made: T | null): T | null {
  const [kept, setKept] = useState<T | null>(made);
  if (made !== null && made !== kept) setKept(made);
  return made ?? kept;
}

interface WayProps {
  offer: MendOffer;
  way: MendMethod | undefined;
  unit: Line["unit"];
  open: boolean;
  onOpen: () => void;
}

/** One way: its word, what the new piece is, and, opened, every term of it. */
function Way({ offer, way, unit, open, onOpen }: WayProps) {
  const minutes = (offer.cost ?? []).reduce((sum, term) => sum + term.minutes, 0);
  return (
    <Box
      component="li"
      data-way={offer.method}
      data-verdict={offer.verdict}
      sx={{ borderTop: "1px solid var(--rule)" }}
    >
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1,
          width: "100%",
          minHeight: 40,
          p: 0,
          border: 0,
          background: "none",
          color: "var(--ink)",
          textAlign: "left",
          font: `600 17px ${condensed}`,
          cursor: "pointer",
          "@media (pointer: coarse)": { minHeight: 44 },
        }}
      >
        <VerdictMark verdict={MARKS[offer.verdict]} />
        <Box component="span" sx={{ flex: 1 }}>
          {offer.name}
        </Box>
        <Box component="span" sx={{ fontWeight: 400, color: "var(--second)", whiteSpace: "nowrap" }}>
          {offer.verdict === "refused" ? "refused" : `${Math.round(minutes)} min`}
        </Box>
      </Box>
      {open && (
        <Box sx={{ pb: 1, pl: 3.25 }}>
          <Terms offer={offer} way={way} unit={unit} />
          {(offer.reasons ?? []).map((reason) => (
            <Box key={reason.text} sx={{ mt: 0.75 }}>
              {reason.text}
              <SourceLine source={reason.source} />
            </Box>
          ))}
          {(offer.working ?? []).map((working) => (
            <Box
              key={working.formula}
              data-working="splice"
              sx={{ mt: 0.75, borderLeft: "3px solid var(--rule)", pl: 1 }}
            >
              <Box sx={{ fontWeight: 500 }}>{working.formula}</Box>
              {working.inputs.map((input) => (
                <Pair key={input.name} name={input.name} value={input.value} />
              ))}
              <Pair name="new piece" value={working.result} strong />
            </Box>
          ))}
          {offer.verdict !== "refused" && (
            <Box data-cost sx={{ mt: 0.75 }}>
              {(offer.cost ?? []).map((term) => (
                <Pair key={term.name} name={`${term.name} (${term.words})`} value={`${Math.round(term.minutes)} min`} />
              ))}
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}

function Terms({ offer, way, unit }: Pick<WayProps, "offer" | "way" | "unit">) {
  const said: [string, string][] = [];
  const length = (name: string, mm: number | null | undefined) => {
    if (mm != null) said.push([name, sayLength(mm, unit)]);
  };
  length("cut, A side, from A", offer.cut_a_mm);
  length("cut, B side, from A", offer.cut_b_mm);
  length("gap", offer.gap_mm);
  length(offer.method === "hose" ? "hose" : "new piece, end to end", offer.piece_mm);
  if ((offer.piece_bends ?? []).length > 0) said.push(["its bends", (offer.piece_bends ?? []).join(", ")]);
  length(offer.method === "hose" ? "overlap at each end" : "left long, to be trimmed there", offer.overlap_mm);
  length("the old ends spring apart by", offer.spring_apart_mm);
  if (way && offer.cut_a_mm != null && way.room > 0) {
    length("straight it needs beside a cut", way.room);
    length("room to swing a wrench", way.swing);
  }
  return (
    <>
      {said.map(([name, value]) => (
        <Pair key={name} name={name} value={value} />
      ))}
    </>
  );
}

function Pair({ name, value, strong = false }: { name: string; value: string; strong?: boolean }) {
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
      <Box component="span" sx={{ color: "var(--second)" }}>
        {name}
      </Box>
      <Box component="span" sx={{ fontWeight: strong ? 600 : 500, textAlign: "right" }}>
        {value}
      </Box>
    </Box>
  );
}
