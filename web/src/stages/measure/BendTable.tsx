import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Fragment } from "react";
import type { BendReadings, BendRow, Plane, Reference } from "../../api/types";
import { editBendRows } from "../../doc/edits";
import { isClock, withSchool } from "../../doc/planes";
import { usePlaneSchool } from "../../doc/usePlaneSchool";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { thenFocus } from "../../ui/thenFocus";
import { sayAngle, sayClock, sayLength, sayTurn } from "../../format/units";
import { focusReading, ReadingField } from "./ReadingField";
import { ReferencePick } from "./ReferencePick";
import { Said } from "./Said";
import { RowTools } from "./RowTools";
import { saidTaken } from "./taken";
import type { Method } from "./methods";
import { METHODS, METHODS_TO_B } from "./methods";
import { MethodPick } from "./MethodPick";
import { PlaneHead } from "./PlaneHead";
import { bendLike, bendRows, editBends, readingsAt, rowAt, typed } from "../../doc/rows";
import { tableSx } from "../../ui/tableSx";

interface Props {
  editor: LineEditor;
  view: PlanView;
  readings: BendReadings;
}

/** A line read bend by bend, end A first: leg, where it was read, bend, plane. */
export function BendTable({ editor, view, readings }: Props) {
  const { document: line, edit } = editor;
  const { bend: chosen, choose } = useSelection();
  const { school, say } = usePlaneSchool();
  const rows = readings.rows;
  const problems = new Map(view.plan?.problems.map((problem) => [problem.path, problem.message]));
  const lengths = view.plan?.lengths_mm ?? {};
  const part = view.old ? null : view.part;
  const other = line.unit === "in" ? "mm" : "in";
  const allWire = rows.length > 0 && rows.every((row) => row.by === "wire");

  const setRow = (k: number, change: (row: BendRow) => Partial<BendRow>) =>
    edit((was) =>
      editBends(
        was,
        (r) => ({ ...r, rows: r.rows.map((row, i) => (i === k ? { ...row, ...change(row) } : row)) }),
        editor.tube,
      ),
    );

  const keysOf = (k: number) => ({
    insertBelow: () => {
      thenFocus(
        () => {
          edit((was) => {
            const there = bendRows(was, editor.tube);
            return editBendRows(
              was,
              {
                kind: "insert",
                at: Math.min(k + 1, there.length),
                row: bendLike(line.unit, there[Math.min(k, there.length - 1)], readings.last_by),
              },
              editor.tube,
            );
          });
          choose(Math.min(k + 2, rows.length + 1));
        },
        () => focusReading(Math.min(k + 1, rows.length), "length"),
      );
    },
    remove: () => {
      if (k >= rows.length) return;
      thenFocus(
        () => {
          edit((was) => editBendRows(was, { kind: "remove", at: k }, editor.tube));
          choose(null);
        },
        () => focusReading(Math.min(k, rows.length - 1), "length"),
      );
    },
    move: (by: number) => {
      if (k >= rows.length || k + by < 0 || k + by >= rows.length) return;
      thenFocus(
        () => {
          edit((was) => editBendRows(was, { kind: "move", from: k, to: k + by }, editor.tube));
          choose(k + by + 1);
        },
        () => focusReading(k + by, "length"),
      );
    },
  });

  const takens = new Map(view.old ? [] : view.piece?.measured.taken.map((one) => [one.path, one]));
  const taken = (path: string) => {
    const to = saidTaken(takens.get(readingsAt(editor.tube) + path), line.unit);
    return to && `→ ${to}`;
  };
  const became = (path: string) => {
    const said = taken(path);
    if (said) return said;
    const mm = lengths[readingsAt(editor.tube) + path];
    return mm === undefined ? "" : sayLength(mm, other);
  };
  const said = (row: BendRow) =>
    (["length", "to", "angle", "plane", "radius"] as const)
      .filter((field) => field === "radius" || row[field].text.trim() !== "")
      .map((field) => problems.get(rowAt(editor.tube, row.id, field)))
      .filter((message) => message !== undefined);

  return (
    <>
      <Box component="table" sx={tableSx} aria-label="Readings, end A first">
        <Box component="colgroup">
          <col style={{ width: 20 }} />
          <col style={{ width: 50 }} />
          <col style={{ width: 92 }} />
          <col style={{ width: 100 }} />
          <col style={{ width: 56 }} />
          <col />
        </Box>
        <thead>
          <tr>
            <th scope="col">
              <span className="hidden">bend</span>
            </th>
            <th scope="col">by</th>
            <th scope="col">{allWire ? "starts at" : "reading"}</th>
            <th scope="col">{allWire ? "ends at" : "from, to"}</th>
            <th scope="col">bend</th>
            <th scope="col">
              <PlaneHead
                school={school}
                onSchool={(next) => void say(next).then((kept) => kept && edit((was) => withSchool(was, next)))}
              />
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, k) => {
            const at = `/rows/${row.id}`;
            const keys = keysOf(k);
            const planned = part?.bends.length === rows.length ? part.bends[k] : undefined;
            const common = { row: k, keys, onFocus: () => choose(k + 1) };
            return (
              <Fragment key={row.id}>
                <tr className={chosen === k + 1 ? "hand" : ""}>
                  <th scope="row">{k + 1}</th>
                  <td>
                    <MethodPick
                      label={`How bend ${k + 1} is placed`}
                      value={methodOf(row)}
                      list={METHODS}
                      onChange={(method) => setRow(k, () => readBy(method))}
                    />
                  </td>
                  <td>
                    <ReadingField
                      {...common}
                      column="length"
                      label={`${lengthName(row)} ${k + 1}`}
                      text={row.length.text}
                      became={became(`${at}/length`)}
                      problem={problems.get(`${readingsAt(editor.tube)}${at}/length`)}
                      onText={(text) => setRow(k, () => ({ length: typed(text, line.unit) }))}
                    />
                  </td>
                  <td>
                    {row.by === "leg" && (
                      <ReferencePick
                        label={`Where row ${k + 1} is read`}
                        from={k === 0 ? null : row.read_from}
                        to={row.read_to}
                        onFrom={(read_from: Reference) => setRow(k, () => ({ read_from }))}
                        onTo={(read_to: Reference) => setRow(k, () => ({ read_to }))}
                      />
                    )}
                    {methodOf(row) === "middle" && <Around text="middle" />}
                    {methodOf(row) === "wire" && (
                      <ReadingField
                        {...common}
                        column="to"
                        label={`End mark of bend ${k + 1}`}
                        text={row.to.text}
                        usual={row.angle.text.trim() === "" && row.angle.exact_deg == null ? "end mark" : "by angle"}
                        became={became(`${at}/to`)}
                        problem={problems.get(`${readingsAt(editor.tube)}${at}/to`)}
                        onText={(text) => setRow(k, () => ({ to: typed(text, line.unit) }))}
                      />
                    )}
                    {row.by === "string" && <Around text={k === 0 ? "from rim A" : `around bend ${k}`} />}
                  </td>
                  <td>
                    <ReadingField
                      {...common}
                      column="angle"
                      label={`Angle of bend ${k + 1}`}
                      text={row.angle.text}
                      became={taken(`${at}/angle`)}
                      {...(methodOf(row) === "wire" ? { usual: planned ? sayAngle(planned.angle_deg) : "marks" } : {})}
                      problem={problems.get(`${readingsAt(editor.tube)}${at}/angle`)}
                      onText={(text) => setRow(k, () => ({ angle: { text, exact_deg: null } }))}
                    />
                  </td>
                  <td>
                    <ReadingField
                      {...common}
                      column="plane"
                      label={`Plane of bend ${k + 1}`}
                      text={k === 0 ? "12:00" : row.plane.text}
                      readOnly={k === 0}
                      became={
                        k > 0 && planned
                          ? taken(`${at}/plane`) || planeBecame(row.plane, planned.rotation_deg, planned.clock_deg)
                          : ""
                      }
                      problem={problems.get(`${readingsAt(editor.tube)}${at}/plane`)}
                      onText={(text) => setRow(k, () => ({ plane: { text, by: school, exact_deg: null } }))}
                    />
                  </td>
                </tr>
                <Said messages={said(row)} />
              </Fragment>
            );
          })}
          <tr>
            <th scope="row">B</th>
            <td>
              <MethodPick
                label="How end B is placed"
                value={readings.last_by}
                list={METHODS_TO_B}
                onChange={(last_by) => edit((was) => editBends(was, (r) => ({ ...r, last_by }), editor.tube))}
              />
            </td>
            <td>
              <ReadingField
                row={rows.length}
                column="length"
                keys={keysOf(rows.length)}
                onFocus={() => choose(null)}
                label={LAST[readings.last_by]}
                text={readings.last.text}
                became={became("/last")}
                problem={problems.get(`${readingsAt(editor.tube)}/last`)}
                onText={(text) =>
                  edit((was) => editBends(was, (r) => ({ ...r, last: typed(text, line.unit) }), editor.tube))
                }
              />
            </td>
            <td>
              {rows.length > 0 && readings.last_by === "leg" && (
                <ReferencePick
                  label="Where the last leg is read"
                  from={readings.last_read_from}
                  to={null}
                  onFrom={(last_read_from) =>
                    edit((was) => editBends(was, (r) => ({ ...r, last_read_from }), editor.tube))
                  }
                />
              )}
              {readings.last_by === "wire" && <Around text="whole wire" />}
              {readings.last_by === "string" && <Around text="around the rest" />}
            </td>
            <td colSpan={2}>
              <Box sx={{ px: 0.75, pt: 0.75, color: "var(--second)" }}>to rim B</Box>
            </td>
          </tr>
          <Said messages={readings.last.text.trim() === "" ? [] : [problems.get(`${readingsAt(editor.tube)}/last`)]} />
        </tbody>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <Button size="small" onClick={() => keysOf(rows.length - 1).insertBelow()}>
          Add a bend
        </Button>
        {chosen !== null && chosen <= rows.length && (
          <RowTools
            what={`bend ${chosen}`}
            keys={keysOf(chosen - 1)}
            first={chosen === 1}
            last={chosen === rows.length}
            radius={rows[chosen - 1]?.radius?.text ?? ""}
            usual={part?.bends[chosen - 1] ? sayLength(part.bends[chosen - 1]?.radius_mm ?? 0, line.unit) : ""}
            onRadius={(text) =>
              setRow(chosen - 1, () => ({ radius: text.trim() === "" ? null : typed(text, line.unit) }))
            }
          />
        )}
      </Box>
    </>
  );
}

const LAST = {
  leg: "Last leg, to end B",
  wire: "Whole wire, to end B",
  string: "String around the rest, to end B",
} as const;

function lengthName(row: BendRow): string {
  if (row.by === "wire") return row.read_to === "centre" ? "Middle mark of bend" : "Start mark of bend";
  return row.by === "string" ? "String to bend" : "Leg to bend";
}

const methodOf = (row: BendRow): Method => (row.by === "wire" && row.read_to === "centre" ? "middle" : row.by);

function readBy(method: Method): Partial<BendRow> {
  if (method === "middle") return { by: "wire", read_to: "centre" };
  return method === "wire" ? { by: "wire", read_to: "start" } : { by: method };
}

function Around({ text }: { text: string }) {
  return <Box sx={{ pt: 0.75, textAlign: "center", color: "var(--second)", fontSize: 14 }}>{text}</Box>;
}

/** A clock time is shown as the turn from the bend before, and the other way round. */
function planeBecame(plane: Plane, rotation: number, clock: number): string {
  return plane.exact_deg != null || isClock(plane) ? sayTurn(rotation) : sayClock(clock);
}
