import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Catalogue, HoseSpan, Joint, Port, Span } from "../../api/types";
import { restructure, setPiece } from "../../doc/chain";
import { typed } from "../../doc/rows";
import type { ChosenPlace } from "../../doc/select";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { lengthAsTyped, sayLength } from "../../format/units";
import { Columns } from "../../ui/Columns";
import { Field, Pick } from "../../ui/Field";
import { useNotice } from "../../ui/notice";
import { useHoseStudy } from "../../doc/useHoseStudy";
import { BoughtCheck } from "./hose/BoughtCheck";
import { HoseLead } from "./hose/HoseLead";
import { HowKnown } from "./hose/HowKnown";
import { WayStudy } from "./hose/WayStudy";
import { PortJoined } from "./PortJoined";
import { PortSeat } from "./PortSeat";
import { ComponentFields, ComponentFigures, HoseFields } from "./PieceFields";

interface Props {
  place: ChosenPlace;
  editor: LineEditor;
  view: PlanView;
  catalogue: Catalogue;
}

/** Whether a chosen place has a panel of its own; a tube is asked with its ends. */
export const asksAlone = (place: ChosenPlace | null, spans: readonly Span[]): place is ChosenPlace =>
  place !== null &&
  (place.kind === "port" ||
    spans.some((span, k) =>
      place.kind === "joint"
        ? span.id === place.id && k < spans.length - 1
        : span.id === place.id && span.kind !== "rigid",
    ));

/** What one hose, component, joint or port of the chain needs, and nothing else. */
export function PlacePanel({ place, editor, view, catalogue }: Props) {
  const { choosePlace } = useSelection();
  const hose =
    place.kind === "span" && editor.document.spans.some((span) => span.id === place.id && span.kind === "hose");
  return (
    <Box component="section" aria-label="The chosen place" sx={{ maxWidth: hose ? undefined : 460 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
        <Typography variant="h2">{titleOf(place, editor.document.spans)}</Typography>
        <Button size="small" variant="text" onClick={() => choosePlace(null)}>
          Whole line
        </Button>
      </Box>
      {place.kind === "port" && <PortFields end={place.id === "A" ? "A" : "B"} editor={editor} catalogue={catalogue} />}
      {place.kind === "joint" && <JointFields before={place.id} editor={editor} view={view} catalogue={catalogue} />}
      {place.kind === "span" && <OfPiece id={place.id} editor={editor} view={view} catalogue={catalogue} />}
    </Box>
  );
}

function titleOf(place: ChosenPlace, spans: readonly Span[]): string {
  if (place.kind === "port") return `Port ${place.id}`;
  if (place.kind === "joint") return "Joint";
  const span = spans.find((one) => one.id === place.id);
  if (span?.kind === "component") return span.what.charAt(0).toUpperCase() + span.what.slice(1);
  return "Hose";
}

function OfPiece({ id, editor, view, catalogue }: { id: string } & Omit<Props, "place">) {
  const { document: line, edit } = editor;
  const piece = line.spans.find((one) => one.id === id);
  if (piece?.kind === "hose") {
    const onChange = (part: Partial<HoseSpan>) => edit((was) => setPiece(was, id, part));
    return <OfHose piece={piece} editor={editor} view={view} catalogue={catalogue} onChange={onChange} />;
  }
  if (piece?.kind !== "component") return null;
  const change = (part: Parameters<typeof setPiece>[2]) => edit((was) => setPiece(was, id, part));
  return (
    <>
      <ComponentFields piece={piece} unit={line.unit} view={view} catalogue={catalogue} onChange={change} />
      <ComponentFigures piece={piece} unit={line.unit} view={view} catalogue={catalogue} onChange={change} />
    </>
  );
}

function OfHose({
  piece,
  editor,
  view,
  catalogue,
  onChange,
}: Omit<Props, "place"> & { piece: HoseSpan; onChange: (part: Partial<HoseSpan>) => void }) {
  const { document: line } = editor;
  const study = useHoseStudy(line, piece.id, editor.opened.id);
  const problemAt = (path: string) => view.plan?.problems.find((item) => item.path === path)?.message;
  return (
    <>
      <HoseLead
        piece={piece}
        study={study ?? null}
        placed={view.plan?.chosen?.pieces.hoses.find((one) => one.stands.span === piece.id)}
        length={view.plan?.hoses.find((one) => one.span === piece.id)?.length_mm}
        unit={line.unit}
        onLength={(mm) => onChange({ length: typed(lengthAsTyped(mm, line.unit), line.unit) })}
      />
      <Columns>
        <Box>
          <HoseFields piece={piece} unit={line.unit} view={view} catalogue={catalogue} onChange={onChange} />
        </Box>
        <Box component="section" aria-label="Where its ends are">
          <Typography variant="h2" component="h3">
            Where its ends are
          </Typography>
          <HowKnown piece={piece} unit={line.unit} catalogue={catalogue} problemAt={problemAt} onChange={onChange} />
          <BoughtCheck piece={piece} unit={line.unit} problemAt={problemAt} onChange={onChange} />
        </Box>
      </Columns>
      {study && (
        <WayStudy
          study={study}
          document={line}
          piece={piece}
          catalogue={catalogue}
          lineId={editor.opened.id}
          onDone={(done) => onChange({ done })}
        />
      )}
    </>
  );
}

function JointFields({ before, editor, view, catalogue }: { before: string } & Omit<Props, "place">) {
  const { document: line, edit } = editor;
  const notice = useNotice();
  const at = line.spans.findIndex((span) => span.id === before);
  const joint = line.joints[at];
  if (!joint) return null;
  const set = (change: Partial<Joint>) =>
    edit((was) => {
      const now = was.spans.findIndex((span) => span.id === before);
      return { ...was, joints: was.joints.map((one, k) => (k === now ? { ...one, ...change } : one)) };
    });
  const problem = (name: string) =>
    view.plan?.problems.find((item) => item.path === `/joints/${before}/${name}`)?.message;
  const tubes = line.spans[at]?.kind === "rigid" && line.spans[at + 1]?.kind === "rigid";
  return (
    <>
      <Pick
        label="Joined by"
        value={joint.kind}
        options={[
          { id: "", name: tubes ? "nothing yet" : "as the hose is held" },
          ...Object.entries(catalogue.joints).map(([id, name]) => ({ id, name })),
        ]}
        onChange={(union) =>
          void restructure(editor, { kind: "union", span: before, union }).then(
            ({ problem: said }) => said && notice({ text: said }),
          )
        }
      />
      <Field
        label="Between ends"
        text={joint.apart.text || (joint.apart.exact_mm == null ? "" : sayLength(joint.apart.exact_mm, line.unit))}
        placeholder="stop or seats of the union"
        takes="length"
        problem={problem("apart")}
        onText={(text) => set({ apart: typed(text, line.unit) })}
      />
      {tubes && (
        <Field
          label="Next one turned"
          text={joint.roll.text}
          placeholder="from the plane before, such as +90°"
          problem={problem("roll")}
          onText={(text) => set({ roll: { text: text.slice(0, 40), by: joint.roll.by, exact_deg: null } })}
        />
      )}
      <OpenedPick opened={joint.opened} onChange={(opened) => set({ opened })} />
      <Field
        label="Because"
        text={joint.why}
        placeholder="kept with the line"
        onText={(why) => set({ why: why.slice(0, 400) })}
      />
      <Field
        label="Done to it"
        text={joint.done}
        placeholder="nipped again after a week"
        onText={(done) => set({ done: done.slice(0, 80) })}
      />
    </>
  );
}

const OPENED: { id: Port["opened"]; name: string }[] = [
  { id: "", name: "if something new goes to it" },
  { id: "opened", name: "yes, for this work" },
  { id: "stays closed", name: "never, it stays closed" },
];

/** Whether a joint or port is opened: what stays closed is neither fitted, nor tightened, nor watched. */
function OpenedPick({ opened, onChange }: { opened: Port["opened"]; onChange: (opened: Port["opened"]) => void }) {
  return <Pick label="Opened" value={opened} options={OPENED} onChange={(id) => onChange(id as Port["opened"])} />;
}

function PortFields({ end, editor, catalogue }: { end: "A" | "B" } & Omit<Props, "place" | "view">) {
  const { document: line, edit } = editor;
  const key = end === "A" ? "port_a" : "port_b";
  const port = line[key];
  const set = (change: Partial<Port>) => edit((was) => ({ ...was, [key]: { ...was[key], ...change } }));
  return (
    <>
      <Field
        label="Goes to"
        text={port.label}
        placeholder="hose bracket, wheel cylinder"
        onText={(label) => set({ label: label.slice(0, 60) })}
      />
      <PortJoined
        opened={editor.opened}
        port={port}
        vacuum={catalogue.services.find((one) => one.id === line.service)?.duty?.vacuum ?? false}
        onChange={set}
      />
      <OpenedPick opened={port.opened} onChange={(opened) => set({ opened })} />
      <PortSeat port={port} catalogue={catalogue} onChange={set} />
      <Field
        label="Port thread"
        text={port.thread}
        placeholder="such as 3/8-24 or M10x1"
        onText={(thread) => set({ thread: thread.slice(0, 40), proved: false })}
      />
    </>
  );
}
