import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Fragment } from "react";
import type { CornerReadings, CornerRow } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { thenFocus } from "../../ui/thenFocus";
import { sayFigure, sayLength } from "../../format/units";
import { focusReading, ReadingField } from "./ReadingField";
import { Said } from "./Said";
import { RowTools } from "./RowTools";
import { editCornerRows } from "../../doc/edits";
import { blankCorner, editCorners, rowAt, typed } from "../../doc/rows";
import { tableSx } from "../../ui/tableSx";

interface Props {
  editor: LineEditor;
  view: PlanView;
  readings: CornerReadings;
}

const AXES = ["x", "y", "z"] as const;

/** Corner points of the centreline from a datum, end A to end B. */
export function CornerTable({ editor, view, readings }: Props) {
  const { document: line, edit } = editor;
  const { bend: chosen, choose } = useSelection();
  const rows = readings.rows;
  const problems = new Map(view.plan?.problems.map((problem) => [problem.path, problem.message]));
  const lengths = view.plan?.lengths_mm ?? {};
  const other = line.unit === "in" ? "mm" : "in";
  const part = view.old ? null : view.part;
  const row = chosen === null ? -1 : chosen;

  const setRows = (change: (rows: CornerRow[]) => CornerRow[]) =>
    edit((was) => editCorners(was, (r) => ({ ...r, rows: change(r.rows) }), editor.tube));
  const setRow = (k: number, change: Partial<CornerRow>) =>
    setRows((was) => was.map((item, i) => (i === k ? { ...item, ...change } : item)));

  const keysOf = (k: number) => ({
    insertBelow: () => {
      thenFocus(
        () =>
          edit((was) => editCornerRows(was, { kind: "insert", at: k + 1, row: blankCorner(line.unit) }, editor.tube)),
        () => focusReading(k + 1, "x"),
      );
    },
    remove: () => {
      thenFocus(
        () => {
          edit((was) => editCornerRows(was, { kind: "remove", at: k }, editor.tube));
          choose(null);
        },
        () => focusReading(Math.max(0, k - 1), "x"),
      );
    },
    move: (by: number) => {
      if (k + by < 0 || k + by >= rows.length) return;
      thenFocus(
        () => edit((was) => editCornerRows(was, { kind: "move", from: k, to: k + by }, editor.tube)),
        () => focusReading(k + by, "x"),
      );
    },
  });
  const last = rows.length - 1;
  const inner = (k: number) => k > 0 && k < last;
  const said = (item: CornerRow) =>
    ([...AXES, "radius"] as const)
      .filter((field) => (item[field]?.text ?? "").trim() !== "" || field === "radius")
      .map((field) => problems.get(rowAt(editor.tube, item.id, field)));

  return (
    <>
      <Box component="table" sx={tableSx} aria-label="Corner points, end A first">
        <Box component="colgroup">
          <col style={{ width: 24 }} />
          <col />
          <col />
          <col />
          <col style={{ width: 84 }} />
        </Box>
        <thead>
          <tr>
            <th scope="col">
              <span className="hidden">corner</span>
            </th>
            {AXES.map((axis) => (
              <th scope="col" key={axis}>
                {axis}
              </th>
            ))}
            <th scope="col">radius</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((item, k) => {
            const common = { row: k, keys: keysOf(k), onFocus: () => choose(inner(k) ? k : null) };
            const name = k === 0 ? "end A" : k === last ? "end B" : `corner ${k}`;
            return (
              <Fragment key={item.id}>
                <tr className={row === k ? "hand" : ""}>
                  <th scope="row">{k === 0 ? "A" : k === last ? "B" : k}</th>
                  {AXES.map((axis) => {
                    const path = rowAt(editor.tube, item.id, axis);
                    const mm = lengths[path];
                    return (
                      <td key={axis}>
                        <ReadingField
                          {...common}
                          column={axis}
                          label={`${axis} of ${name}`}
                          text={item[axis].text}
                          became={mm === undefined ? "" : sayLength(mm, other)}
                          problem={problems.get(path)}
                          onText={(text) => setRow(k, { [axis]: typed(text, line.unit) })}
                        />
                      </td>
                    );
                  })}
                  <td>
                    {inner(k) && (
                      <ReadingField
                        {...common}
                        column="radius"
                        label={`Radius at ${name}`}
                        text={item.radius?.text ?? ""}
                        usual={
                          part?.bends.length === last - 1
                            ? sayFigure(part.bends[k - 1]?.radius_mm ?? 0, line.unit)
                            : "usual"
                        }
                        became={item.radius ? "" : "the bender’s"}
                        problem={problems.get(rowAt(editor.tube, item.id, "radius"))}
                        onText={(text) => setRow(k, { radius: text.trim() === "" ? null : typed(text, line.unit) })}
                      />
                    )}
                  </td>
                </tr>
                <Said messages={said(item)} />
              </Fragment>
            );
          })}
        </tbody>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <Button size="small" onClick={() => keysOf(row >= 0 ? row : Math.max(0, last - 1)).insertBelow()}>
          {rows.length < 2 ? "Add a point" : "Add a corner"}
        </Button>
        {inner(row) && (
          <RowTools
            what={`corner ${row}`}
            keys={keysOf(row)}
            first={row === 0}
            last={row === last}
            radius={null}
            usual=""
            onRadius={() => undefined}
          />
        )}
      </Box>
    </>
  );
}
