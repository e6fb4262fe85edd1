import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { api, take } from "../../api/client";
import { useAsked } from "../../doc/useAsked";
import type { Check, Checks as ChecksOf, CheckAdvice, NextCheck } from "../../api/types";
import { Field } from "../../ui/Field";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { sayAngle, sayLength } from "../../format/units";
import { focusReading } from "./ReadingField";
import { Section } from "../../ui/Section";
import { readingsAt, spanOf, typed, withSpan } from "../../doc/rows";
import { SeenFromA } from "./SeenFromA";
import { ReadNext, WhatIsTaken } from "./WhatIsTaken";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const QUIET_MS = 700;

/** Readings that catch a misreading, and the readings to take again when one does. */
export function Checks({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const { checks } = spanOf(line, editor.tube);
  const measured = view.old ? undefined : view.piece?.measured;
  const looked = useLooked(editor, measured?.doubt != null);
  const suspects = measured?.disagree ? looked.named : [];
  const set = (change: Partial<ChecksOf>) =>
    edit((was) => withSpan(was, { checks: { ...spanOf(was, editor.tube).checks, ...change } }, editor.tube));
  const problem = (path: string) =>
    view.piece?.measured.problems.find((item) => item.path === `/spans/${editor.tube}/checks/${path}`)?.message;
  const verdict = (kind: Check["kind"]) => (
    <Verdict check={measured?.checks.find((check) => check.kind === kind)} unit={line.unit} />
  );
  const at = readingsAt(editor.tube);
  const corners = spanOf(line, editor.tube).readings.kind === "corners";

  return (
    <>
      {looked.ask && <NextOne ask={looked.ask} />}
      {looked.next && <ReadNext next={looked.next} unit={line.unit} />}
      <Section
        title="Checks"
        open={(measured?.checks.length ?? 0) > 0}
        hint="A wire, a tape across the ends, a port’s direction: any of them catches a misreading."
      >
        <Field
          takes="length"
          label="Whole wire"
          text={checks.wire.text}
          placeholder="laid along the old line"
          problem={problem("wire")}
          onText={(text) => set({ wire: typed(text, line.unit) })}
        />
        {verdict("wire")}
        <Field
          takes="length"
          label="Rim to rim"
          text={checks.tape.text}
          placeholder="tape straight across the ends"
          problem={problem("tape")}
          onText={(text) => set({ tape: typed(text, line.unit) })}
        />
        {verdict("tape")}
        {!corners && <SeenFromA checks={checks} unit={line.unit} problem={problem} onSet={set} />}
        {!corners && verdict("place B")}
        {corners ? (
          <>
            <Field
              label="Way out of A"
              text={checks.way_a}
              placeholder="+x, -z or 1 0 -1"
              problem={problem("way_a")}
              onText={(way_a) => set({ way_a: way_a.slice(0, 80) })}
            />
            {verdict("way A")}
            <Field
              label="Way into B"
              text={checks.way_b}
              placeholder="+x, -z or 1 0 -1"
              problem={problem("way_b")}
              onText={(way_b) => set({ way_b: way_b.slice(0, 80) })}
            />
          </>
        ) : (
          <>
            <Field
              takes="angle"
              label="Port B turns off A’s way by"
              text={checks.port_b_angle.text}
              placeholder="0° straight on, 180° back"
              problem={problem("port_b_angle")}
              onText={(text) => set({ port_b_angle: { text: text.slice(0, 80), exact_deg: null } })}
            />
            <Field
              label="towards"
              text={checks.port_b_clock.text}
              placeholder="clock seen from A, 3:00"
              problem={problem("port_b_clock")}
              onText={(text) => set({ port_b_clock: { text: text.slice(0, 80), by: "clock", exact_deg: null } })}
            />
          </>
        )}
        {verdict("way B")}
        <WhatIsTaken
          checks={checks}
          at={at}
          taken={measured?.taken ?? []}
          trusted={measured?.trusted ?? []}
          unit={line.unit}
          onSet={set}
        />
        {suspects.length > 0 && (
          <Box
            role="status"
            aria-label="Read these again"
            sx={{ mt: 1, borderTop: "2px solid var(--caution)", pt: 0.5 }}
          >
            <Box sx={{ fontWeight: 600 }}>Read these again, likeliest first</Box>
            {suspects.map((suspect) => (
              <Box
                key={suspect.path}
                data-suspect={suspect.path}
                sx={{ display: "flex", gap: 1, alignItems: "center", borderBottom: "1px solid var(--rule)" }}
              >
                <Box sx={{ flex: 1, py: 0.5 }}>
                  <strong>{suspect.name}</strong>: {suspect.change} would reconcile all
                  {suspect.slip && `, ${suspect.slip}`}.
                </Box>
                <Button
                  size="small"
                  variant="text"
                  aria-label={`Go to ${suspect.name}`}
                  onClick={() => goTo(suspect.path, spanOf(line, editor.tube).readings.rows)}
                >
                  Go there
                </Button>
                <Button
                  size="small"
                  variant="text"
                  aria-label={`Leave out ${suspect.name}`}
                  onClick={() => set({ left_out: [...checks.left_out, suspect.path.slice(at.length)] })}
                >
                  Leave it out
                </Button>
              </Box>
            ))}
          </Box>
        )}
      </Section>
    </>
  );
}

function goTo(path: string, rows: readonly { id: string }[]) {
  const [, row, column] = /\/rows\/(\w+)\/(\w+)$/.exec(path) ?? [];
  if (row && column)
    focusReading(
      rows.findIndex((item) => item.id === row),
      column,
    );
  else focusReading(document.querySelectorAll("input[data-column='angle']").length, "length");
}

function Verdict({ check, unit }: { check: Check | undefined; unit: "in" | "mm" }) {
  if (!check) return null;
  const length = check.kind === "wire" || check.kind === "tape" || check.kind === "place B";
  const say = (value: number) => (length ? sayLength(value, unit) : sayAngle(value));
  const off = Math.abs(check.given - check.computed);
  const agrees = off <= check.allowed;
  return (
    <Box
      data-check={check.kind}
      data-agrees={agrees}
      sx={{
        pl: "112px",
        fontSize: 14,
        color: agrees ? "var(--good)" : "var(--caution)",
        fontWeight: agrees ? 400 : 600,
      }}
    >
      {length && check.kind !== "place B" ? `readings say ${say(check.computed)}; ` : ""}
      {agrees
        ? `agrees within ${say(check.allowed)}`
        : `off by ${say(off)}; reading error explains ${say(check.allowed)}`}
    </Box>
  );
}

/** What the checks say: while nothing contradicts, only whether a side could be wrong unnoticed. */
function useLooked(editor: LineEditor, wanted: boolean): CheckAdvice {
  const { document: line, tube } = editor;
  const { answer } = useAsked(
    ["suspects", line, tube],
    (signal) => take(api.POST("/api/suspects", { body: line, params: { query: { span: tube } }, signal })),
    { wanted, quiet: QUIET_MS },
  );
  return answer ?? NOTHING;
}

const NOTHING: CheckAdvice = { named: [], ask: null, next: null };

const CHECKS: Record<NextCheck["kind"], string> = {
  wire: "Lay a wire along the old line and take its whole length",
  tape: "Take the tape straight across, from rim to rim",
  "way B": "Say which way port B points",
};

function NextOne({ ask }: { ask: NextCheck }) {
  return (
    <Box role="status" data-ask={ask.kind} sx={{ mt: 1, pl: 1, borderLeft: "4px solid var(--note)" }}>
      <b>{CHECKS[ask.kind]}.</b>{" "}
      {ask.why === "which is wrong"
        ? `It decides between ${ask.between.join(", ")}.`
        : `Now nobody would notice ${ask.between.length === 1 ? "this on its wrong side" : "one of these on its wrong side"}: ${ask.between.join(", ")}.`}
    </Box>
  );
}
