import Box from "@mui/material/Box";
import { useRef, useState } from "react";
import type { ReactNode } from "react";
import { api, take } from "../../api/client";
import { useAsked } from "../../doc/useAsked";
import type { Check, Checks as ChecksOf, CheckAdvice, ToTake } from "../../api/types";
import { Field } from "../../ui/Field";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { focusReading } from "./ReadingField";
import { Section } from "../../ui/Section";
import { thenFocus } from "../../ui/thenFocus";
import { readingsAt, spanOf, spotsOf, typed, withSpan } from "../../doc/rows";
import { CornersSeen } from "./CornersSeen";
import { blankBend, blankTape, checkAt, filled, sheetAsDrawn } from "./further";
import type { Fold } from "./further";
import { OnSheet } from "./OnSheet";
import { AlsoRead, ReadNext } from "./ReadNext";
import { SeenFromA } from "./SeenFromA";
import { Suspects } from "./Suspects";
import { TapesAcross } from "./TapesAcross";
import { Verdict } from "./Verdict";
import { WhatIsTaken } from "./WhatIsTaken";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const QUIET_MS = 700;

/** Readings that catch a misreading and bring end B nearer, and the readings to take again when one does. */
export function Checks({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const { checks, readings } = spanOf(line, editor.tube);
  const { unit } = line;
  const measured = view.old ? undefined : view.piece?.measured;
  const looked = useLooked(editor, measured?.doubt != null);
  const suspects = measured?.disagree ? looked.named : [];
  const [wanted, setWanted] = useState<Fold | null>(null);
  const inside = useRef<HTMLDivElement>(null);

  const set = (change: Partial<ChecksOf>) =>
    edit((was) => withSpan(was, { checks: { ...spanOf(was, editor.tube).checks, ...change } }, editor.tube));
  const checksAt = `/spans/${editor.tube}/checks/`;
  const problem = (path: string) =>
    view.piece?.measured.problems.find((item) => item.path === checksAt + path)?.message;
  const verdict = (kind: Check["kind"], of = "") => (
    <Verdict check={measured?.checks.find((check) => check.kind === kind && check.of === of)} unit={unit} />
  );
  const at = readingsAt(editor.tube);
  const corners = readings.kind === "corners";
  const spots = spotsOf(readings);
  const length = (name: "wire" | "tape", label: string, holder: string) => (
    <Box data-at={name}>
      <Field
        takes="length"
        label={label}
        text={checks[name].text}
        placeholder={holder}
        problem={problem(name)}
        onText={(text) => set({ [name]: typed(text, unit) })}
      />
      {verdict(name)}
    </Box>
  );
  const way = (name: "way_a" | "way_b", label: string) => (
    <Box data-at={name}>
      <Field
        label={label}
        text={checks[name]}
        placeholder="+x, -z or 1 0 -1"
        problem={problem(name)}
        onText={(text) => set({ [name]: text.slice(0, 80) })}
      />
      {verdict(name === "way_a" ? "way A" : "way B")}
    </Box>
  );

  const held = filled(checks);
  const fold = (name: Fold, title: string, content: ReactNode) => (
    <Box data-at={name}>
      <Section title={title} hint="" open={held.has(name) || wanted === name}>
        {content}
      </Section>
    </Box>
  );
  /** The first field of what stands nearest round a place in the checks. */
  const focus = (path: string) => {
    const round = [...(inside.current?.querySelectorAll<HTMLElement>("[data-at]") ?? [])].filter((part) =>
      `${path}/`.startsWith(`${part.dataset["at"] ?? ""}/`),
    );
    const field = round.at(-1)?.querySelector<HTMLInputElement>('input:not([type="checkbox"])');
    field?.focus();
    field?.scrollIntoView({ block: "center" });
  };
  const takeIt = (reading: ToTake) => {
    const tape = reading.kind === "across" ? blankTape(reading.start, reading.end, unit) : null;
    const bend = reading.kind === "bend on sheet" ? blankBend(reading.start) : null;
    const path = tape ? `across/${tape.id}` : bend ? `sheet/bends/${bend.id}` : checkAt(reading.kind, corners);
    thenFocus(
      () => {
        setWanted(path.split("/")[0] as Fold);
        if (tape) set({ across: [...checks.across, tape] });
        if (bend) {
          const bends = [...checks.sheet.bends, bend];
          set({ sheet: sheetAsDrawn(checks.sheet, { bends }, measured?.drawn ?? null, unit) });
        }
      },
      () => focus(path),
    );
  };
  const goTo = (path: string) =>
    path.startsWith(at) ? goToReading(path, readings.rows) : focus(path.slice(checksAt.length));

  return (
    <>
      {looked.next && <ReadNext next={looked.next} unit={unit} onTake={takeIt} />}
      {looked.ask && <AlsoRead ask={looked.ask} onTake={takeIt} />}
      <Section
        title="Checks"
        open={(measured?.checks.length ?? 0) > 0 || wanted !== null}
        hint="A wire, a tape, the old part on its sheet: each catches a misreading and brings end B nearer."
      >
        <Box ref={inside}>
          {length("wire", "Whole wire", "laid along the old line")}
          {length("tape", "Rim to rim", "tape straight across the ends")}
          {corners ? (
            <>
              {way("way_a", "Way out of A")}
              {way("way_b", "Way into B")}
            </>
          ) : (
            <Box data-at="port_b_angle">
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
              {verdict("way B")}
            </Box>
          )}
          {fold(
            "sheet",
            "The old part on its sheet",
            <OnSheet
              checks={checks}
              drawn={measured?.drawn ?? null}
              unit={unit}
              href={`/api/lines/${editor.opened.id}/jig.pdf?span=${editor.tube}`}
              bends={spots.slice(1, -1)}
              problem={problem}
              verdict={verdict}
              onSet={set}
            />,
          )}
          {!corners &&
            fold(
              "ahead",
              "Where end B stands",
              <>
                <SeenFromA checks={checks} unit={unit} problem={problem} onSet={set} />
                {verdict("place B")}
              </>,
            )}
          {fold(
            "across",
            "Tapes to corners",
            <TapesAcross
              checks={checks}
              spots={spots}
              unit={unit}
              problem={problem}
              verdict={(id) => verdict("across", id)}
              onSet={set}
            />,
          )}
          {!corners &&
            fold(
              "corners",
              "Where corners stand",
              <CornersSeen
                checks={checks}
                bends={spots.slice(1, -1)}
                unit={unit}
                problem={problem}
                verdict={(id) => verdict("corner", id)}
                onSet={set}
              />,
            )}
        </Box>
        <WhatIsTaken
          checks={checks}
          at={at}
          taken={measured?.taken ?? []}
          trusted={measured?.trusted ?? []}
          unit={unit}
          onSet={set}
        />
        {suspects.length > 0 && (
          <Suspects
            named={suspects}
            at={at}
            onGo={goTo}
            onLeaveOut={(path) => set({ left_out: [...checks.left_out, path] })}
          />
        )}
      </Section>
    </>
  );
}

function goToReading(path: string, rows: readonly { id: string }[]) {
  const [, row, column] = /\/rows\/(\w+)\/(\w+)$/.exec(path) ?? [];
  if (row && column)
    focusReading(
      rows.findIndex((item) => item.id === row),
      column,
    );
  else focusReading(document.querySelectorAll("input[data-column='angle']").length, "length");
}

/** What the checks say: what may be wrong, what would notice a slip, what to read next. */
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
