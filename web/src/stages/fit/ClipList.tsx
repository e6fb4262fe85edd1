import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Clips, Fixture } from "../../api/types";
import { removeFound } from "../../doc/edits";
import { blankFixture } from "../../doc/fixtures";
import { freshId, typed } from "../../doc/rows";
import { useCatalogue } from "../../doc/useCatalogue";
import type { LineEditor } from "../../doc/useLine";
import { pieceName } from "../../doc/pieceName";
import type { PlanView } from "../../doc/usePlan";
import { lengthAsTyped } from "../../format/units";
import { FIXED_TO, FIXTURES, STATES } from "../../format/words";
import { Choice, Typed, Word } from "../../ui/Entry";

interface Props {
  editor: LineEditor;
  view: PlanView;
  /** Where clips are proposed along the tube that is worked on. */
  proposed: Clips | null;
}

/** What holds the line, thing by thing over all its tubes and hoses: kind and size, what it goes on, the hole and
 * what is behind it, which other line it holds. On loose and made tight they are ticked in the steps. */
export function ClipList({ editor, view, proposed }: Props) {
  const { document: line, edit } = editor;
  const catalogue = useCatalogue();
  const fixtures = line.condition.fixtures;
  const set = (list: Fixture[]) => edit((was) => ({ ...was, condition: { ...was.condition, fixtures: list } }));
  const change = (id: string | undefined, part: Partial<Fixture>) =>
    set(fixtures.map((one) => (one.id === id ? { ...one, ...part } : one)));
  const fitted = (span: string, mm: number | null): Fixture => ({
    ...blankFixture(line.unit, "to fit"),
    id: freshId("i"),
    span,
    at: typed(mm === null ? "" : lengthAsTyped(mm, line.unit), line.unit),
    clip: proposed?.clip?.id ?? "",
  });
  const said = (id: string | undefined, name: string) =>
    view.plan?.looked.problems.find((one) => one.path === `/condition/fixtures/${id ?? ""}/${name}`)?.message;
  const pieces = line.spans.filter((span) => span.kind !== "component");
  return (
    <Box component="section" aria-label="What holds it" sx={{ mb: 1.5 }}>
      <Typography variant="h2">What holds it</Typography>
      {fixtures.map((one, k) => {
        const wrong = said(one.id, "at") ?? said(one.id, "drill");
        const n = k + 1;
        return (
          <Box key={one.id} data-clip-row={one.id} sx={{ borderBottom: "1px solid var(--rule)", py: 0.5 }}>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, alignItems: "center" }}>
              <Word
                label={`Kind ${n}`}
                value={one.kind}
                list={FIXTURES}
                onChange={(kind) => change(one.id, { kind })}
              />
              <Typed
                label={`Place ${n}`}
                text={one.at.text}
                placeholder="from A"
                takes="length"
                width={76}
                wrong={said(one.id, "at")}
                onText={(text) => change(one.id, { at: typed(text, line.unit) })}
              />
              {pieces.length > 1 && (
                <Choice
                  label={`On which piece ${n}`}
                  value={one.span || editor.tube}
                  options={pieces.map((span) => ({ id: span.id, name: pieceName(line.spans, span.id) }))}
                  onChange={(span) => change(one.id, { span })}
                />
              )}
              <Word
                label={`State ${n}`}
                value={one.state}
                list={STATES}
                onChange={(state) => change(one.id, { state })}
              />
              {one.kind === "clip" && catalogue && (
                <Choice
                  label={`Which clip ${n}`}
                  value={one.clip}
                  options={[{ id: "", name: "which is not said" }, ...catalogue.clips]}
                  onChange={(clip) => change(one.id, { clip })}
                />
              )}
              <Choice
                label={`Goes on ${n}`}
                value={one.fixed_to}
                options={FIXED_TO.map((id) => ({ id, name: id || "goes on: not said" }))}
                onChange={(fixed_to) => change(one.id, { fixed_to })}
              />
              {one.fixed_to === "a hole to drill" && (
                <>
                  <Typed
                    label={`Drill ${n}`}
                    text={one.drill.text}
                    placeholder="drill"
                    takes="length"
                    width={62}
                    wrong={said(one.id, "drill")}
                    onText={(text) => change(one.id, { drill: typed(text, line.unit) })}
                  />
                  <Typed
                    label={`Behind it ${n}`}
                    text={one.behind}
                    placeholder="what is behind"
                    width={150}
                    onText={(behind) => change(one.id, { behind: behind.slice(0, 80) })}
                  />
                </>
              )}
              <Typed
                label={`It holds besides ${n}`}
                text={one.shared}
                placeholder="another line too"
                width={130}
                onText={(shared) => change(one.id, { shared: shared.slice(0, 80) })}
              />
              <Button
                size="small"
                variant="text"
                aria-label={`Take out what holds it ${n}`}
                onClick={() => edit((was) => removeFound(was, "fixtures", one.id))}
                sx={{ minWidth: 32, px: 0.5, ml: "auto" }}
              >
                ✕
              </Button>
            </Box>
            {wrong && (
              <Box role="alert" sx={{ color: "var(--stop)", fontSize: 14 }}>
                {wrong}
              </Box>
            )}
          </Box>
        );
      })}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 0.75 }}>
        {proposed && !proposed.old && (
          <Button
            size="small"
            onClick={() => set([...fixtures, ...proposed.places_mm.map((mm) => fitted(editor.tube, mm))])}
          >
            Put these {proposed.places_mm.length} in
          </Button>
        )}
        <Button size="small" onClick={() => set([...fixtures, fitted("", null)])}>
          Add one
        </Button>
      </Box>
    </Box>
  );
}
