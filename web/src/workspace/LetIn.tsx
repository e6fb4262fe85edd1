import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { api, take } from "../api/client";
import type { LetInOrder, LettingIn } from "../api/types";
import { letIn } from "../doc/chain";
import { useSelection } from "../doc/select";
import type { LineEditor } from "../doc/useLine";
import { sayLength } from "../format/units";
import { Field, Pick } from "../ui/Field";
import { useNotice } from "../ui/notice";
import { useAsked } from "../doc/useAsked";
import { SourceLine } from "../ui/Working";

const KINDS: LetInOrder["what"][] = ["cooler", "filter", "shut-off valve", "check valve", "restrictor"];
const FLOWS: Record<LettingIn["place"]["flows"], string> = {
  "A to B": "It flows from A to B",
  "B to A": "It flows from B to A",
  "both ways": "It flows both ways",
  "not known": "Which way it flows is not known",
  contradicts: "What is said of the ports contradicts itself",
};

/** A cooler, filter or valve let into a tube: where it is cut, what joins it, what it hangs on, in one step. */
export function LetIn({ span, editor, onDone }: { span: string; editor: LineEditor; onDone: () => void }) {
  const { document: line } = editor;
  const { showCuts, choosePlace } = useSelection();
  const notice = useNotice();
  const [order, setOrder] = useState<LetInOrder>({
    span,
    what: "filter",
    at: "",
    length: "",
    joined: "hoses",
    mounted: "in line",
    hose_a: "",
    hose_b: "",
    mount: "",
    rated: "",
    old: true,
  });
  const set = (change: Partial<LetInOrder>) => setOrder((was) => ({ ...was, ...change }));
  const { answer: made, problem } = useAsked(["let-in", line, order], (signal) =>
    take(api.POST("/api/let-in", { body: { document: line, order }, signal })),
  );
  const place = made?.place;
  // what nobody has typed yet is asked for, not refused
  const refused = place?.verdict === "refused" && order.rated.trim() !== "";
  useEffect(() => {
    if (!place) return;
    const [low, high] = [place.cut_a_mm, place.cut_b_mm];
    const move = (end: "A" | "B", mm: number) =>
      setOrder((was) => ({ ...was, at: `${((low + high) / 2 + mm - (end === "A" ? low : high)).toFixed(1)} mm` }));
    showCuts({ span, a: low, b: high, refused, move });
    return () => showCuts(null);
  }, [place, refused, showCuts, span]);
  const hoses = order.joined === "hoses";
  const take_ = () =>
    void letIn(editor, order).then((done) => {
      if (done.span === null) notice({ text: done.problem });
      else {
        choosePlace({ kind: "span", id: done.span });
        notice({ text: "The line is rewritten; undo brings the old one back." });
        onDone();
      }
    });
  return (
    <Box
      component="section"
      aria-label="Let in a component"
      sx={{ width: "100%", pb: 1, maxHeight: "min(440px, 52vh)", overflowY: "auto" }}
    >
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(3, minmax(0, 1fr))",
          columnGap: 3,
          "@media (max-width: 1000px)": { gridTemplateColumns: "repeat(2, minmax(0, 1fr))" },
        }}
      >
        <Pick
          label="Let in"
          value={order.what}
          options={KINDS.map((id) => ({ id: id, name: id }))}
          onChange={(what) => set({ what: what as NonNullable<LetInOrder["what"]> })}
        />
        <Pick
          label="The tube is"
          value={order.old ? "old" : "new"}
          options={[
            { id: "old", name: "old: both halves stay" },
            { id: "new", name: "still to be made" },
          ]}
          onChange={(is) => set({ old: is === "old" })}
        />
        <Field
          label="Its length"
          text={order.length}
          placeholder="port to port"
          takes="length"
          onText={(length) => set({ length })}
        />
        <Field
          label="Middle at"
          text={order.at}
          placeholder={place ? sayLength((place.cut_a_mm + place.cut_b_mm) / 2, line.unit) : "longest straight"}
          takes="length"
          onText={(at) => set({ at })}
        />
        <Pick
          label="Joined by"
          value={order.joined}
          options={[
            { id: "hoses", name: "a hose on either side" },
            { id: "its own ends", name: "its own threaded ends" },
          ]}
          onChange={(joined) => set({ joined: joined as NonNullable<LetInOrder["joined"]> })}
        />
        <Pick
          label="Mounted"
          value={order.mounted}
          options={["in line", "elsewhere, on hoses"].map((id) => ({ id, name: id }))}
          onChange={(mounted) =>
            set({
              mounted: mounted as NonNullable<LetInOrder["mounted"]>,
              ...(mounted === "in line" ? {} : { joined: "hoses" }),
            })
          }
        />
        <Field
          label="Rated for"
          text={order.rated}
          placeholder="10 bar, by its maker"
          onText={(rated) => set({ rated: rated.slice(0, 40) })}
        />
        <Field
          label="Hangs on"
          text={order.mount}
          placeholder="bracket on the frame, rubber"
          onText={(mount) => set({ mount: mount.slice(0, 80) })}
        />
        {hoses && order.mounted !== "in line" && (
          <>
            <Field
              label="Hose, A side"
              text={order.hose_a}
              placeholder="blank until routed"
              takes="length"
              onText={(hose_a) => set({ hose_a })}
            />
            <Field
              label="Hose, B side"
              text={order.hose_b}
              placeholder="blank until routed"
              takes="length"
              onText={(hose_b) => set({ hose_b })}
            />
          </>
        )}
      </Box>
      <Box role="status" data-verdict={place?.verdict ?? ""} sx={{ mt: 0.5 }}>
        {problem && <Box sx={{ color: "var(--stop)" }}>{problem}</Box>}
        {place && (
          <>
            <Box sx={{ fontWeight: 600, color: refused ? "var(--stop)" : "inherit" }}>
              {refused ? "Refused. " : place.verdict === "refused" ? "Not yet. " : ""}
              Cut at {sayLength(place.cut_a_mm, line.unit)} and {sayLength(place.cut_b_mm, line.unit)}
              {place.hoses_mm[0] != null && `, hose ${sayLength(place.hoses_mm[0], line.unit)} on the A side`}
              {place.hoses_mm[1] != null && `, ${sayLength(place.hoses_mm[1], line.unit)} on the B side`}.{" "}
              {FLOWS[place.flows]}
              {line.port_a.role_how || line.port_b.role_how
                ? ` (${line.port_a.role_how || line.port_b.role_how}).`
                : "."}
            </Box>
            {place.reasons.map((reason) => (
              <Box key={reason.text}>
                {reason.text}
                <SourceLine source={reason.source} />
              </Box>
            ))}
          </>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 1, mt: 1 }}>
        <Button variant="contained" disabled={!made?.document} onClick={take_}>
          Let it in
        </Button>
        <Button variant="text" onClick={onDone}>
          Leave it
        </Button>
      </Box>
    </Box>
  );
}
