import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { Condition, Damage, Fixture, Length } from "../../api/types";
import { removeFound } from "../../doc/edits";
import { blankFixture } from "../../doc/fixtures";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { freshId, removeAt, typed } from "../../doc/rows";
import { PhotoButton } from "../../ui/PhotoButton";
import { Typed, Word } from "../../ui/Entry";
import { DAMAGE, DEPTHS, FIXTURES, STATES } from "../../format/words";

interface RowsProps<T extends object> {
  title: string;
  hint: string;
  add: string;
  rows: readonly T[];
  blank: T;
  set: (rows: T[]) => void;
  /** How an entry is taken out where others of the document speak of it by its number. */
  remove?: (k: number) => void;
  message?: (k: number) => string | undefined;
  onFocus?: (k: number) => void;
  /** A note under every row, where rows have one. */
  noted?: boolean;
  children: (row: T, change: (part: Partial<T>) => void, k: number) => ReactNode;
}

function Rows<T extends object>({
  title,
  hint,
  add,
  rows,
  blank,
  set,
  remove,
  message,
  onFocus,
  noted = false,
  children,
}: RowsProps<T>) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h2">{title}</Typography>
      {rows.length === 0 && <Box sx={{ color: "var(--second)" }}>{hint}</Box>}
      {rows.map((row, k) => (
        <Box key={k} onFocus={() => onFocus?.(k)} sx={{ borderBottom: "1px solid var(--rule)", py: 0.5 }}>
          <Box sx={{ display: "flex", flexWrap: noted ? "wrap" : "nowrap", gap: 0.5, alignItems: "center" }}>
            {children(row, (part) => set(rows.map((item, i) => (i === k ? { ...item, ...part } : item))), k)}
            {noted && "note" in row && (
              <Box sx={{ flex: "1 1 150px", minWidth: 0 }}>
                <Typed
                  label={`Note on ${title.toLowerCase()} ${k + 1}`}
                  text={String(row.note)}
                  placeholder="note"
                  width="100%"
                  onText={(note) =>
                    set(rows.map((item, i) => (i === k ? { ...item, note: note.slice(0, 400) } : item)))
                  }
                />
              </Box>
            )}
            <Button
              size="small"
              variant="text"
              aria-label={`Take out ${title.toLowerCase()} ${k + 1}`}
              onClick={() => (remove ? remove(k) : set(removeAt(rows, k)))}
              sx={{ minWidth: 32, px: 0.5, ml: "auto" }}
            >
              ✕
            </Button>
          </Box>
          {message?.(k) && (
            <Box role="alert" aria-live="polite" sx={{ color: "var(--stop)", fontSize: 14 }}>
              {message(k)}
            </Box>
          )}
        </Box>
      ))}
      <Button
        size="small"
        sx={{ mt: 0.75 }}
        onClick={() => set([...rows, "id" in blank ? { ...blank, id: freshId("i") } : blank])}
      >
        {add}
      </Button>
    </Box>
  );
}

interface ListProps<T> {
  editor: LineEditor;
  view: PlanView;
  set: (rows: T[]) => void;
}

const problemOf = (view: PlanView, path: string) =>
  view.plan?.looked.problems.find((item) => item.path === path)?.message;

/** Damage by its place along the tube from end A; it shows on the strip. */
export function DamageRows({ editor, view, damage, set }: ListProps<Damage> & { damage: Condition["damage"] }) {
  const { light } = useSelection();
  const { unit } = editor.document;
  const blank: Damage = {
    id: "",
    span: "",
    kind: "rust",
    depth: "deep",
    at: typed("", unit),
    to: typed("", unit),
    note: "",
    photo: "",
  };
  const length = (text: string): Length => typed(text, unit);
  return (
    <Rows
      title="Damage"
      hint="Walk the whole line; note every place from end A."
      add="Add damage"
      noted
      rows={damage}
      remove={(k) => editor.edit((was) => removeFound(was, "damage", damage[k]?.id ?? ""))}
      blank={blank}
      set={set}
      message={(k) =>
        problemOf(view, `/condition/damage/${damage[k]?.id ?? ""}/at`) ??
        problemOf(view, `/condition/damage/${damage[k]?.id ?? ""}/to`)
      }
      onFocus={(k) => {
        const placed = view.plan?.looked.damage.find((item) => item.id === damage[k]?.id);
        light(
          placed
            ? { span: placed.span, from: placed.from_mm, to: placed.to_mm, severity: "caution", key: `damage ${k}` }
            : null,
        );
      }}
    >
      {(row, change, k) => (
        <>
          <Word
            label={`Kind of damage ${k + 1}`}
            value={row.kind}
            list={DAMAGE}
            onChange={(kind) => change({ kind })}
          />
          <Word
            label={`Depth of damage ${k + 1}`}
            value={row.depth}
            list={DEPTHS}
            onChange={(depth) => change({ depth })}
          />
          <Typed
            label={`Damage ${k + 1} from`}
            text={row.at.text}
            placeholder="from"
            takes="length"
            width={62}
            wrong={problemOf(view, `/condition/damage/${row.id}/at`)}
            onText={(text) => change({ at: length(text) })}
          />
          <Typed
            label={`Damage ${k + 1} to`}
            text={row.to.text}
            placeholder="to"
            takes="length"
            width={62}
            wrong={problemOf(view, `/condition/damage/${row.id}/to`)}
            onText={(text) => change({ to: length(text) })}
          />
          <PhotoButton of={`damage ${k + 1}`} photo={row.photo} onPhoto={(photo) => change({ photo })} />
        </>
      )}
    </Rows>
  );
}

/** Clips, sleeves, grommets and retainers where they sit, there or not. */
export function FixtureRows({ editor, view, fixtures, set }: ListProps<Fixture> & { fixtures: Condition["fixtures"] }) {
  const { unit } = editor.document;
  return (
    <Rows
      title="Clips and sleeves"
      hint="Note them with their places, and those that should be there and are not."
      add="Add a clip or sleeve"
      noted
      rows={fixtures}
      remove={(k) => editor.edit((was) => removeFound(was, "fixtures", fixtures[k]?.id ?? ""))}
      blank={blankFixture(unit, "there")}
      set={set}
      message={(k) => problemOf(view, `/condition/fixtures/${fixtures[k]?.id ?? ""}/at`)}
    >
      {(row, change, k) => (
        <>
          <Word
            label={`Kind of clip ${k + 1}`}
            value={row.kind}
            list={FIXTURES}
            onChange={(kind) => change({ kind })}
          />
          <Word
            label={`State of clip ${k + 1}`}
            value={row.state}
            list={STATES}
            onChange={(state) => change({ state })}
          />
          <Typed
            label={`Clip ${k + 1} at`}
            text={row.at.text}
            placeholder="at"
            takes="length"
            width={70}
            wrong={problemOf(view, `/condition/fixtures/${row.id}/at`)}
            onText={(text) => change({ at: typed(text, unit) })}
          />
          <PhotoButton of={`${row.kind} ${k + 1}`} photo={row.photo} onPhoto={(photo) => change({ photo })} />
        </>
      )}
    </Rows>
  );
}

/** Wet points while it runs, the highest first; the part next door ruled out where it was that. */
export function WetRows({ wet, set }: { wet: Condition["wet"]; set: (rows: Condition["wet"]) => void }) {
  return (
    <Rows
      title="Wet points"
      hint="Clean it, run it, and note the highest wet point first."
      add="Add a wet point"
      rows={wet}
      blank={{ place: "", ruled_out: "" }}
      set={set}
    >
      {(row, change, k) => (
        <>
          <Typed
            label={`Wet point ${k + 1}`}
            text={row.place}
            placeholder={k === 0 ? "highest" : "next below"}
            width="48%"
            onText={(place) => change({ place: place.slice(0, 80) })}
          />
          <Typed
            label={`Wet point ${k + 1} came from next door`}
            text={row.ruled_out}
            placeholder="part next door, if it was that"
            width="44%"
            onText={(ruled_out) => change({ ruled_out: ruled_out.slice(0, 400) })}
          />
        </>
      )}
    </Rows>
  );
}
