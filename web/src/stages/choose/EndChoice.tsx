import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { Catalogue, Port, TubeEnd, Unit } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import { useLearnt } from "../../doc/useLearnt";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { spanOf, typed, withSpan } from "../../doc/rows";
import { sayLength, sayTorque } from "../../format/units";
import { BeyondEnd } from "./BeyondEnd";
import { PortSeat } from "./PortSeat";
import { restructure } from "../../doc/chain";
import { useNotice } from "../../ui/notice";
import { Field, Pick } from "../../ui/Field";

const NO_THREAD = new Set(["plain", "hose", "quick"]);

interface Props {
  end: "A" | "B";
  editor: LineEditor;
  view: PlanView;
  catalogue: Catalogue;
  size: string;
  plastic: boolean;
}

/** How one end is finished, its nut, and the port that it goes to. */
export function EndChoice({ end, editor, view, catalogue, size, plastic }: Props) {
  const { document: line, edit } = editor;
  const notice = useNotice();
  const key = end === "A" ? "end_a" : "end_b";
  const own = spanOf(line, editor.tube);
  const choice = own[key];
  const portKey = end === "A" ? "port_a" : "port_b";
  const at = line.spans.findIndex((span) => span.id === own.id);
  const beyond = end === "A" ? line.spans.slice(0, at) : line.spans.slice(at + 1);
  const atPort = !beyond.some((span) => span.kind === "rigid");
  const port = line[portKey];
  const nut = catalogue.nuts.find((row) => row.id === choice.nut);
  const fitting = catalogue.fittings.find((row) => row.id === choice.fitting);
  const taught = useLearnt()?.joints.find((one) => fitting && one.fittings.includes(fitting.id));

  const flared = fitting !== undefined && catalogue.flarers.some((tool) => tool.forms.includes(fitting.kind));
  const screwed = fitting !== undefined && !NO_THREAD.has(fitting.kind);
  const planned = view.part?.[key];
  const set = (change: Partial<TubeEnd>) =>
    edit((was) => withSpan(was, { [key]: { ...spanOf(was, own.id)[key], ...change } }, own.id));
  const setPort = (change: Partial<Port>) =>
    edit((was) => (atPort ? { ...was, [portKey]: { ...was[portKey], ...change } } : was));
  const setNut = (change: Partial<TubeEnd>) => {
    set(change);
    setPort({ proved: false });
  };
  const goesOn = (madeFor: string) => madeFor === size || (catalogue.stands_in[size] ?? []).includes(madeFor);
  const nuts = catalogue.nuts.filter(
    (row) => (row.fitting === choice.fitting && goesOn(row.size)) || row.id === choice.nut,
  );
  const problem = view.plan?.problems.find((item) => item.path === `/spans/${own.id}/${key}/trial/used`)?.message;

  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, mt: 2 }}>
      <Typography variant="h2" component="legend">
        End {end}
      </Typography>
      {atPort && (
        <Field
          label="Goes to"
          text={port.label}
          placeholder="hose bracket, wheel cylinder"
          onText={(label) => setPort({ label: label.slice(0, 60) })}
        />
      )}
      <Pick
        label="End type"
        value={choice.fitting}
        options={catalogue.fittings.map(({ id, name }) => ({ id, name }))}
        onChange={(fitting) =>
          void restructure(editor, { kind: "end", span: own.id, side: end, fitting }).then(
            ({ problem: said }) => said && notice({ text: said }),
          )
        }
      />
      {fitting && <Box sx={{ fontSize: 14, color: "var(--second)" }}>Seals: {fitting.seals}.</Box>}
      {taught && <Box sx={{ fontSize: 14, color: "var(--second)" }}>{taught.said}</Box>}
      {atPort && <PortSeat port={port} catalogue={catalogue} onChange={setPort} />}
      {plastic && fitting?.kind === "compression" && (
        <FormControlLabel
          control={
            <Checkbox
              color="default"
              checked={choice.insert}
              onChange={(event) => set({ insert: event.target.checked })}
            />
          }
          label="An insert is in the tube"
        />
      )}
      {screwed && (
        <>
          <Pick
            label={fitting.kind === "banjo" ? "Banjo bolt" : fitting.kind === "stud" ? "Stud" : "Nut"}
            value={choice.nut ?? ""}
            options={[
              { id: "", name: "none yet" },
              ...nuts.map((row) => ({
                id: row.id,
                name: `${row.thread}, ${row.length_mm} mm long${row.fitting !== choice.fitting ? " (other end)" : row.size === size ? "" : `, for ${row.size}`}`,
              })),
            ]}
            onChange={(id) => setNut({ nut: id || null })}
          />
          {nut && <SourceLine source={nut.source} />}
          {nut && <Tightness torque={catalogue.torques.find((row) => row.id === planned?.torque)} unit={line.unit} />}
          {atPort && (
            <Field
              label="Port thread"
              text={port.thread}
              placeholder="such as 3/8-24 or M10x1"
              onText={(thread) => setPort({ thread: thread.slice(0, 40), proved: false })}
            />
          )}
          <Box sx={{ pl: "112px", fontSize: 14, "& a": { color: "var(--second)", mr: 2 } }}>
            <Link to="/lookups/thread">Which thread is it?</Link>
            <Link to="/lookups/stripped">It is stripped</Link>
          </Box>
          {flared && (
            <Field
              label="Flare uses up"
              text={choice.trial?.used.text ?? ""}
              placeholder={
                planned ? `${sayLength(planned.allowance_mm, line.unit)}, computed` : "measured on a test piece"
              }
              problem={problem}
              onText={(text) =>
                set(
                  text.trim() === ""
                    ? { trial: null }
                    : { trial: { used: typed(text, line.unit), fitting: choice.fitting, size } },
                )
              }
            />
          )}
          {atPort && (
            <FormControlLabel
              control={
                <Checkbox
                  color="default"
                  checked={port.proved}
                  onChange={(event) => setPort({ proved: event.target.checked })}
                />
              }
              label="Nut run home in the real port by hand"
            />
          )}
        </>
      )}
      <BeyondEnd end={end} editor={editor} view={view} catalogue={catalogue} />
    </Box>
  );
}

/** How far the joint is tightened, or that nobody publishes it. */
function Tightness({ torque, unit }: { torque: Catalogue["torques"][number] | undefined; unit: Unit }) {
  return (
    <Box data-torque sx={{ pl: "112px" }}>
      {torque
        ? `Goes to ${sayTorque(torque.least_nm, torque.most_nm, unit)}`
        : "No torque is published for this tube and end: by feel, wait, nip again."}
      {torque && <SourceLine source={torque.source} />}
    </Box>
  );
}
