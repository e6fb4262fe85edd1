import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Finding, Spot } from "../api/types";
import { litFrom, useSelection } from "../doc/select";
import { restructure } from "../doc/chain";
import { applyChanges } from "../doc/pointer";
import { useNotice } from "../ui/notice";
import type { LineEditor } from "../doc/useLine";
import type { PlanView } from "../doc/usePlan";
import { condensed, pressable, unseen } from "../theme/theme";
import { BeingWorkedOut } from "../ui/BeingWorkedOut";
import { NameDialog } from "../ui/NameDialog";
import { SourceLine } from "../ui/Working";
import { SeverityMark } from "../ui/SeverityMark";
import { alikeOf, keyOf, placesOf } from "./alike";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const many = (count: number, what: string) => `${count} ${what}${count === 1 ? "" : "s"}`;

/** What a finding is about, by ids that never change. */
const spotOf = ({ where }: Finding): Spot => ({
  kind: where.kind,
  span: where.span,
  row: where.row,
  end: where.end ?? null,
  item: where.item,
});

const sameSpot = (at: Spot, finding: Finding): boolean =>
  [at.kind, at.span, at.row, at.end ?? null, at.item].join(" ") ===
  Object.values(spotOf(finding))
    .map((value) => value ?? "")
    .join(" ");

/** As the core counts it: at least two words and eight letters say something. */
const isReason = (text: string): boolean =>
  (text.match(/\p{L}{2,}/gu) ?? []).length >= 2 && (text.match(/\p{L}/gu) ?? []).length >= 8;

const WORST = ["stop", "caution", "note"];

/** What is wrong or risky, worst first; choosing one lights it up on strip and stage. */
export function Findings({ editor, view }: Props) {
  const [taking, setTaking] = useState<readonly Finding[] | null>(null);
  const { plan, old } = view;
  const findings = [...(view.bench?.findings ?? []), ...(plan?.findings ?? [])].sort(
    (a, b) => WORST.indexOf(a.severity) - WORST.indexOf(b.severity),
  );
  const open = findings.filter((finding) => !finding.set_aside);
  const taken = findings.filter((finding) => finding.set_aside);
  const blanks = plan?.problems.filter((problem) => problem.path.includes("/readings/")).length ?? 0;

  return (
    <>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, alignItems: "baseline", mb: 1 }}>
        <Typography variant="h2">Findings</Typography>
        <BeingWorkedOut what={view.waiting} />
      </Box>
      <Box role="status" aria-label="How many" sx={unseen}>
        {plan?.chosen
          ? WORST.map((severity) =>
              many(open.filter((finding) => finding.severity === severity).length, severity),
            ).join(", ")
          : ""}
      </Box>
      {plan && !plan.chosen && (
        <Box sx={{ mb: 1 }}>
          {old && !view.growing ? "The drawing is from before. " : ""}
          {blanks > 0 ? `${blanks} ${blanks === 1 ? "reading is" : "readings are"} still to finish; ` : ""}
          the line is judged as soon as every reading can be read.
          {plan.problems
            .filter((problem) => !problem.path.includes("/readings/"))
            .map((problem) => (
              <Box key={problem.path} role="alert" aria-live="polite" sx={{ color: "var(--stop)", mt: 1 }}>
                {problem.message}
              </Box>
            ))}
        </Box>
      )}
      {view.beyond && <Box sx={{ mb: 1, color: "var(--second)" }}>At the tool: {view.beyond}</Box>}
      {plan?.chosen && open.length === 0 && <Box>Nothing against this line.</Box>}
      {alikeOf(open).map((alike) =>
        alike.length > 1 ? (
          <Alike key={alike.map(keyOf).join()} alike={alike} editor={editor} onSetAside={setTaking} />
        ) : (
          alike.map((finding) => (
            <Item key={keyOf(finding)} finding={finding} editor={editor} onSetAside={() => setTaking([finding])} />
          ))
        ),
      )}
      {taken.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Typography variant="h2">Set aside</Typography>
          {taken.map((finding) => (
            <Box key={keyOf(finding)} sx={{ py: 1, borderTop: "1px solid var(--rule)", color: "var(--second)" }}>
              <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
                <SeverityMark severity={finding.severity} size={16} /> {finding.title}
              </Box>
              <Box sx={{ overflowWrap: "anywhere" }}>“{finding.set_aside}”</Box>
              <Act
                onClick={() =>
                  editor.edit((was) => ({
                    ...was,
                    set_aside: was.set_aside.filter(
                      (item) => !(item.code === finding.code && sameSpot(item.at, finding)),
                    ),
                  }))
                }
              >
                Take up again
              </Act>
            </Box>
          ))}
        </Box>
      )}
      <NameDialog
        open={taking !== null}
        title="Set aside, with a reason"
        label="Reason, kept in the record"
        first=""
        done="Set aside"
        needed="A reason is needed."
        refuse={(text) => (isReason(text) ? "" : "Write it so that the next person understands it: two words or more.")}
        onClose={() => setTaking(null)}
        onDone={(reason) => {
          if (!taking) return;
          const entries = taking.map((finding) => ({ code: finding.code, at: spotOf(finding), reason }));
          editor.edit((was) => ({ ...was, set_aside: [...was.set_aside, ...entries] }));
        }}
      >
        <Box sx={{ color: "var(--second)" }}>
          {taking?.some((one) => one.safety) ? "This one can hurt somebody. " : ""}
          {taking?.[0]?.title}
          {taking && taking.length > 1
            ? `, and the same at ${many(taking.length - 1, `other ${taking[0]?.where.kind === "bend" ? "bend" : "place"}`)}`
            : ""}
          . The reason stays with the line and can be read by whoever works on it next.
        </Box>
      </NameDialog>
    </>
  );
}

/** One finding at several bends or pieces: settled for all at once, or one by one. */
function Alike({
  alike,
  editor,
  onSetAside,
}: {
  alike: readonly Finding[];
  editor: LineEditor;
  onSetAside: (findings: readonly Finding[]) => void;
}) {
  const [first] = alike;
  if (!first) return null;
  const fixes = alike.flatMap(({ fix }) => (fix && !fix.reduce ? [fix] : []));
  // what is changed on the whole tube is changed once
  const once = new Set(fixes.map(({ changes }) => JSON.stringify(changes))).size === 1;
  const bends = first.where.kind === "bend";
  return (
    <Box data-alike={first.code} sx={{ py: 1.25, borderBottom: "1px solid var(--rule)" }}>
      <Box sx={{ display: "flex", gap: 1.25 }}>
        <SeverityMark severity={first.severity} />
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ font: `600 17px ${condensed}`, lineHeight: 1.25 }}>{first.title}</Box>
          <Box sx={{ fontSize: 14.5, color: "var(--second)" }}>
            {bends ? "" : `${first.message} ${first.fix ? "" : first.advice} `}The same holds at{" "}
            {placesOf(alike, editor.document.spans)}.
          </Box>
          <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
            {fixes.length === alike.length && (
              <Act
                strong
                onClick={() =>
                  editor.edit((was) => fixes.reduce((line, { changes }) => applyChanges(line, changes), was))
                }
              >
                {once ? (fixes[0]?.label ?? "") : `At all ${alike.length}: ${fixes[0]?.label ?? ""}`}
              </Act>
            )}
            {first.severity !== "note" && (
              <Act onClick={() => onSetAside(alike)}>{`Set all ${alike.length} aside…`}</Act>
            )}
          </Box>
          <Box
            component="details"
            sx={{
              "& summary": { cursor: "pointer", color: "var(--second)", "@media (pointer: coarse)": { minHeight: 44 } },
            }}
          >
            <summary>{bends ? "Bend by bend" : "One by one"}</summary>
            {alike.map((finding) => (
              <Item
                key={keyOf(finding)}
                finding={finding}
                editor={editor}
                named={bends ? "" : placesOf([finding], editor.document.spans)}
                onSetAside={() => onSetAside([finding])}
              />
            ))}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

interface ItemProps {
  finding: Finding;
  editor: LineEditor;
  /** Where it is, where its title does not say so. */
  named?: string;
  onSetAside: () => void;
}

function Item({ finding, editor, named, onSetAside }: ItemProps) {
  const { light, lit, choose, choosePlace } = useSelection();
  const notice = useNotice();
  const takeFix = ({ changes, reduce }: NonNullable<Finding["fix"]>) => {
    editor.edit((was) => applyChanges(was, changes));
    if (!reduce) return;
    void restructure(editor, { kind: "reduce", span: reduce.span, reduce }).then((done) =>
      done.span === null ? notice({ text: done.problem }) : choosePlace({ kind: "span", id: done.span }),
    );
  };
  const key = keyOf(finding);
  const chosen = lit?.key === key;
  const show = () => {
    if (finding.where.span && (finding.where.kind === "span" || finding.where.span !== editor.tube))
      choosePlace({ kind: "span", id: finding.where.span });
    choose(finding.where.kind === "bend" ? (finding.where.number ?? null) : null);
    light(litFrom(finding.where, finding.severity, key));
  };
  return (
    <Box
      data-finding={finding.code}
      data-severity={finding.severity}
      sx={{
        py: 1.25,
        borderBottom: "1px solid var(--rule)",
        display: "flex",
        gap: 1.25,
        background: chosen ? "var(--hand)" : "transparent",
        "@media (pointer: coarse)": { "& > svg": { mt: 1.25 } }, // beside the title, which is higher there
      }}
    >
      <SeverityMark severity={finding.severity} />
      <Box sx={{ minWidth: 0 }}>
        <Box
          component="button"
          onClick={show}
          aria-pressed={chosen}
          title="Show where"
          sx={{
            all: "unset",
            cursor: "pointer",
            font: `600 17px ${condensed}`,
            lineHeight: 1.25,
            "&:hover": { textDecoration: "underline" },
            "&:focus-visible": { outline: "3px solid var(--ink)" },
            ...pressable,
          }}
        >
          {finding.title}
          {named ? `: ${named}` : ""}
        </Box>
        <Box sx={{ fontSize: 14.5, color: "var(--second)", overflowWrap: "anywhere" }}>
          {finding.message}{" "}
          {!finding.fix && finding.advice && (
            <Box component="span" sx={{ color: "var(--ink)" }}>
              {finding.advice}
            </Box>
          )}
        </Box>
        <SourceLine source={finding.source} />
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
          {finding.fix && (
            <Act
              strong
              onClick={() => {
                light(null);
                if (finding.fix) takeFix(finding.fix);
              }}
            >
              {finding.fix.label}
            </Act>
          )}
          {finding.severity !== "note" && <Act onClick={onSetAside}>Set aside…</Act>}
        </Box>
      </Box>
    </Box>
  );
}

function Act({ children, strong, onClick }: { children: string; strong?: boolean; onClick: () => void }) {
  return (
    <Button
      variant="text"
      size="small"
      onClick={onClick}
      sx={{
        px: 0,
        minWidth: 0,
        fontSize: 16,
        justifyContent: "start",
        textAlign: "left",
        color: strong ? "var(--ink)" : "var(--second)",
        borderRadius: 0,
        "& > span, &": {
          textDecoration: "underline",
          textDecorationColor: strong ? "var(--tube)" : "var(--rule)",
          textDecorationThickness: 2,
          textUnderlineOffset: 4,
        },
      }}
    >
      {children}
    </Button>
  );
}
