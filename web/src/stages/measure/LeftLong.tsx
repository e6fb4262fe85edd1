import { Field } from "../../ui/Field";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Section } from "../../ui/Section";
import { spanOf, typed, withSpan } from "../../doc/rows";

/** Tube left on at an end for the trial fit, trimmed before its flare. */
export function LeftLong({ editor, view }: { editor: LineEditor; view: PlanView }) {
  const { document: line, edit } = editor;
  const own = spanOf(line, editor.tube);
  const problem = (path: string) => view.plan?.problems.find((item) => item.path === path)?.message;
  return (
    <Section
      title="Left long for later"
      hint="Tube left on at an end until the trial fit; it is part of the cut and of the order of work."
      open={own.end_a.leave_long.text !== "" || own.end_b.leave_long.text !== ""}
    >
      {(["A", "B"] as const).map((end) => {
        const key = end === "A" ? "end_a" : "end_b";
        return (
          <Field
            key={end}
            label={`Long at ${end} by`}
            text={own[key].leave_long.text}
            placeholder="such as 25 mm; blank: to the figure"
            problem={problem(`/spans/${own.id}/${key}/leave_long`)}
            onText={(text) =>
              edit((was) =>
                withSpan(was, { [key]: { ...spanOf(was, own.id)[key], leave_long: typed(text, line.unit) } }, own.id),
              )
            }
          />
        );
      })}
    </Section>
  );
}
