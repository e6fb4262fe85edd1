import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useCallback, useEffect, useState } from "react";
import { api, take } from "../../api/client";
import type { Line, MendOrder, PlacedDamage, Unit } from "../../api/types";
import { mend, stillDamaged } from "../../doc/chain";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { sayLength } from "../../format/units";
import { Field, Pick } from "../../ui/Field";
import { KitTable } from "../../ui/KitTable";
import { MendWay } from "../../ui/MendWay";
import { useNotice } from "../../ui/notice";
import { useAsked } from "../../doc/useAsked";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

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
  const [order, setOrder] = useState<MendOrder>({ damage: damage.id, cut_a: "", cut_b: "", room: "" });
  const [method, setMethod] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState("");
  const { answer: shown, problem: refused } = useAsked(
    ["mend", line, order],
    (signal) => take(api.POST("/api/mend", { body: { document: line, order }, signal })),
    { stays: true },
  );
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
          text={order.cut_a}
          placeholder={offer?.cut_a_mm == null ? "none" : sayLength(offer.cut_a_mm, line.unit)}
          takes="length"
          onText={(cut_a) => setOrder((was) => ({ ...was, cut_a }))}
        />
        <Field
          label="Cut, B side"
          text={order.cut_b}
          placeholder={offer?.cut_b_mm == null ? "none" : sayLength(offer.cut_b_mm, line.unit)}
          takes="length"
          onText={(cut_b) => setOrder((was) => ({ ...was, cut_b }))}
        />
        <Field
          label="Free round it"
          text={order.room}
          placeholder="room at the cuts, as measured"
          takes="length"
          onText={(room) => setOrder((was) => ({ ...was, room }))}
        />
      </Box>
      <Box role="status" sx={{ fontSize: 14, color: "var(--second)" }}>
        {refused || shown.snapped.join(" ") || "Type a cut, or drag it on the strip."}
        {shown.stagger_mm != null &&
          ` ${shown.twin_seen ? "Its twin lies beside it" : "If a twin lies beside it"}: cuts of the two stand ${sayLength(shown.stagger_mm, line.unit)} apart.`}
      </Box>
      <Box component="ol" sx={{ m: 0, mt: 1, p: 0, listStyle: "none" }}>
        {shown.offers.map((one) => (
          <MendWay
            key={one.method}
            offer={one}
            way={shown.methods.find((row) => row.id === one.method)}
            unit={line.unit}
            open={one === offer}
            onOpen={() => setMethod(one.method)}
            told={`${Math.round(one.cost.reduce((sum, term) => sum + term.minutes, 0))} min`}
          >
            {one.verdict !== "refused" && <Takes line={line} order={order} method={one.method} />}
          </MendWay>
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

/** What deciding on a way asks for: parts with price and stock, and tools. */
function Takes({ line, order, method }: { line: Line; order: MendOrder; method: string }) {
  const { answer: made } = useAsked(["takes", line, order, method], (signal) =>
    take(api.POST("/api/mend/takes", { body: { document: line, order, method }, signal })),
  );
  if (!made) return null;
  return (
    <Box data-asks={method} sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600 }}>What the line then takes</Box>
      <KitTable list={made.list} unit={line.unit} />
      <Box sx={{ mt: 0.75, color: "var(--second)" }}>
        {[...new Set(made.tools.map((tool) => tool.what))].join("; ")}
      </Box>
    </Box>
  );
}
