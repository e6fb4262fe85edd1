import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Line } from "../../api/types";
import { restructure } from "../../doc/chain";
import { useNotice } from "../../ui/notice";
import { STATES } from "./PieceFields";
import { SourceLine } from "../../ui/Working";
import { CarriedFields } from "./CarriedFields";
import { Compare } from "./Compare";
import { Consequences } from "./Consequences";
import { setBender, sizesIn } from "./choices";
import { EndChoice } from "./EndChoice";
import { asksAlone, PlacePanel } from "./PlacePanel";
import { useLearnt } from "../../doc/useLearnt";
import { useSelection } from "../../doc/select";
import { Field, Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { spanOf, typed, withSpan } from "../../doc/rows";
import { sayLength } from "../../format/units";
import { AddOwn } from "../../ui/OwnEntries";
import { Columns } from "../../ui/Columns";
import { Section } from "../../ui/Section";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** Service, tube, bender and both ends, each default visible and changeable, each with its source. */
export default function ChoosePanel(props: Props) {
  const catalogue = useCatalogue();
  return catalogue ? <Choices {...props} catalogue={catalogue} /> : null;
}

function Choices(props: Props & { catalogue: Catalogue }) {
  const { place } = useSelection();
  if (asksAlone(place, props.editor.document.spans))
    return (
      <Box sx={{ p: 2 }}>
        <PlacePanel place={place} {...props} />
      </Box>
    );
  return props.editor.tube === "" ? <WithoutTube {...props} /> : <OfTube {...props} />;
}

/** A line of hose and components alone: its service, and the pieces on the strip. */
function WithoutTube({ editor, view, catalogue }: Props & { catalogue: Catalogue }) {
  return (
    <Box sx={{ p: 2 }}>
      <Typography variant="h2">Line</Typography>
      <ServiceField editor={editor} catalogue={catalogue} />
      <CarriedFields editor={editor} view={view} catalogue={catalogue} />
      <Box sx={{ color: "var(--second)", my: 1 }}>
        Choose a piece, a joint or a port on the strip to see what it asks.
      </Box>
      {view.plan?.chosen && <Consequences line={editor.document} chosen={view.plan.chosen} />}
    </Box>
  );
}

function ServiceField({ editor, catalogue }: { editor: LineEditor; catalogue: Catalogue }) {
  return (
    <Pick
      label="Service"
      value={editor.document.service}
      options={catalogue.services.map(({ id, name }) => ({ id, name }))}
      onChange={(service) => editor.edit((was) => ({ ...was, service }))}
    />
  );
}

function OfTube({ editor, view, catalogue }: Props & { catalogue: Catalogue }) {
  const { document: line, edit } = editor;
  const [comparing, setComparing] = useState(false);
  const learnt = useLearnt();
  const span = spanOf(line, editor.tube);
  const tube = catalogue.tubes.find((row) => row.id === span.tube);
  const bender = catalogue.benders.find((row) => row.id === span.bender);
  const material = catalogue.materials.find((row) => row.id === tube?.material);
  const set = (change: (was: Line) => Line) => edit(change);
  const notice = useNotice();
  const ask = (order: Omit<Parameters<typeof restructure>[1], "span">) =>
    void restructure(editor, { ...order, span: editor.tube }).then(
      ({ problem: said }) => said && notice({ text: said }),
    );
  const problem = (path: string) => view.plan?.problems.find((item) => item.path === path)?.message;
  const walls = catalogue.tubes.filter((row) => row.material === tube?.material && row.size === tube.size);

  return (
    <Box sx={{ p: 2 }}>
      <Columns>
        <Box>
          <Typography variant="h2">Line</Typography>
          <ServiceField editor={editor} catalogue={catalogue} />
          <CarriedFields editor={editor} view={view} catalogue={catalogue} />
        </Box>
        <Box>
          <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
            <Typography variant="h2">Tube</Typography>
            <Button size="small" onClick={() => setComparing(true)}>
              Compare choices…
            </Button>
          </Box>
          <Pick
            label="This tube is"
            value={span.state}
            options={STATES}
            onChange={(state) => set((was) => withSpan(was, { state: state as typeof span.state }, editor.tube))}
          />
          <Pick
            label="Material"
            value={tube?.material ?? ""}
            options={catalogue.materials.map(({ id, name }) => ({ id, name }))}
            onChange={(material) => ask({ kind: "tube", material })}
          />
          <Pick
            label="Size"
            value={tube?.size ?? ""}
            options={sizesIn(catalogue, tube?.material).map((size) => ({ id: size, name: size }))}
            onChange={(size) => ask({ kind: "tube", size })}
          />
          <AddOwn
            shelf="tubes"
            text="Another diameter, as measured…"
            preset={{ material: tube?.material ?? "" }}
            catalogue={catalogue}
            onAdded={({ row_id, fields }) =>
              void restructure(editor, {
                kind: "tube",
                material: fields.material ?? "",
                size: fields.size ?? "",
                span: editor.tube,
              }).then(() => set((was) => withSpan(was, { tube: row_id }, editor.tube)))
            }
          />
          <Pick
            label="Wall"
            value={span.tube}
            options={walls.map((row) => ({
              id: row.id,
              name: `${row.wall_mm} mm (${(row.wall_mm / 25.4).toFixed(3)} in)`,
            }))}
            onChange={(id) => set((was) => withSpan(was, { tube: id }, editor.tube))}
          />
          {tube && <SourceLine source={tube.source} />}
          {material && <SourceLine source={material.source} />}
          <Schools editor={editor} material={material?.id} catalogue={catalogue} />
          {learnt?.met && <Box sx={{ fontSize: 14, color: "var(--second)" }}>{learnt.met}</Box>}
          <Pick
            label="Bender"
            value={span.bender}
            options={catalogue.benders
              .filter(
                (row) =>
                  (row.size === tube?.size && row.plastic === (material?.family === "plastic")) ||
                  row.id === span.bender ||
                  row.radius_mm == null,
              )
              .map((row) => ({
                id: row.id,
                name:
                  row.radius_mm == null
                    ? row.name
                    : `${row.name}${row.size === tube?.size ? "" : `, ${row.size}`}, R ${sayLength(row.radius_mm, line.unit)}`,
              }))}
            onChange={(id) => set((was) => setBender(was, id, editor.tube))}
          />
          {bender && (
            <Box sx={{ fontSize: 14, color: "var(--second)" }}>
              up to {bender.greatest_angle_deg}°; needs {sayLength(bender.least_before_first_mm, line.unit)} before the
              first bend, {sayLength(bender.least_between_mm, line.unit)} between bends,{" "}
              {sayLength(bender.least_after_last_mm, line.unit)} after the last
            </Box>
          )}
          {bender && (
            <Box sx={{ fontSize: 14, "& a": { color: "var(--second)" } }}>
              <Link to={`/tools?bender=${encodeURIComponent(bender.id)}&material=${material?.id ?? "copper-nickel"}`}>
                Calibrate it with test pieces
              </Link>
            </Box>
          )}
          {bender && <SourceLine source={bender.source} />}
        </Box>
      </Columns>
      <Columns>
        <EndChoice
          end="A"
          editor={editor}
          view={view}
          catalogue={catalogue}
          size={tube?.size ?? ""}
          plastic={material?.family === "plastic"}
        />
        <EndChoice
          end="B"
          editor={editor}
          view={view}
          catalogue={catalogue}
          size={tube?.size ?? ""}
          plastic={material?.family === "plastic"}
        />
      </Columns>
      <Typography variant="h2" sx={{ mt: 2 }}>
        Cutting
      </Typography>
      <Field
        label="Spare, trimmed at the last"
        text={span.spare.text}
        placeholder="none"
        problem={problem(`/spans/${span.id}/spare`)}
        onText={(text) => set((was) => withSpan(was, { spare: typed(text, was.unit) }, editor.tube))}
      />
      {view.plan?.chosen && <Consequences line={line} chosen={view.plan.chosen} />}
      {comparing && <Compare editor={editor} onClose={() => setComparing(false)} />}
    </Box>
  );
}

/** Where practitioners differ on the tube: the shop's own way and the others, each with its reason. */
function Schools({
  editor,
  material,
  catalogue,
}: {
  editor: LineEditor;
  material: string | undefined;
  catalogue: Catalogue;
}) {
  const school = catalogue.schools.find((row) => row.id === "material");
  const own = school?.options.find((option) => option.id === catalogue.preferences.material);
  if (!school || !own || !material || editor.document.service === "unspecified") return null;
  return (
    <Section title={`This shop’s way: ${own.name}`} hint={own.reason} open={false}>
      {school.options
        .filter((option) => option.id !== own.id)
        .map((option) => (
          <Box key={option.id} sx={{ py: 0.25 }}>
            <b>Others: {option.name}.</b> {option.reason}
          </Box>
        ))}
      <Box sx={{ "& a": { color: "var(--ink)" } }}>
        <Link to="/catalogue/ways">Change the shop’s ways</Link>
      </Box>
      <SourceLine source={school.source} />
    </Section>
  );
}
