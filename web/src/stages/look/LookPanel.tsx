import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Condition } from "../../api/types";
import { Columns } from "../../ui/Columns";
import { Field, Pick } from "../../ui/Field";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Advice } from "./Advice";
import { MendWays } from "./MendWays";
import { Ports } from "./Ports";
import { DamageRows, FixtureRows, WetRows } from "./rows";
import { CAUSES, END_STATES, REASONS, SCHOOLS, TWINS, URGENCIES, words } from "../../format/words";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** What was found on the old line, why, and what to do: replace, from a separation point, or splice. */
export default function LookPanel({ editor, view }: Props) {
  const { condition } = editor.document;
  const set = (change: Partial<Condition>) =>
    editor.edit((was) => ({ ...was, condition: { ...was.condition, ...change } }));
  const reasons = new Set(condition.reasons);

  return (
    <Box sx={{ p: 2 }}>
      <Typography variant="h2">Why it is here</Typography>
      <Box
        role="group"
        aria-label="Reasons"
        sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(150px, 1fr))", columnGap: 2 }}
      >
        {REASONS.map((reason) => (
          <Box
            component="label"
            key={reason}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 0.75,
              minHeight: 32,
              "@media (pointer: coarse)": { minHeight: 44 },
            }}
          >
            <input
              type="checkbox"
              checked={reasons.has(reason)}
              onChange={(event) =>
                set({
                  reasons: event.target.checked
                    ? [...condition.reasons, reason]
                    : condition.reasons.filter((item) => item !== reason),
                })
              }
              style={{ width: 18, height: 18, accentColor: "var(--ink)" }}
            />
            {reason}
          </Box>
        ))}
      </Box>
      <Columns>
        <Box>
          <Pick
            label="How urgent"
            value={condition.urgency}
            options={words(URGENCIES)}
            onChange={(id) => set({ urgency: id as Condition["urgency"] })}
          />
          <Pick
            label="Its twin"
            value={condition.twin}
            options={words(TWINS)}
            onChange={(id) => set({ twin: id as Condition["twin"] })}
          />
        </Box>
        <WetRows wet={condition.wet} set={(wet) => set({ wet })} />
      </Columns>
      <Ports editor={editor} />
      <DamageRows editor={editor} view={view} damage={condition.damage} set={(damage) => set({ damage })} />
      <FixtureRows editor={editor} view={view} fixtures={condition.fixtures} set={(fixtures) => set({ fixtures })} />
      <Columns>
        <Box>
          <Typography variant="h2" sx={{ mt: 2 }}>
            Cause
          </Typography>
          <Pick
            label="It came from"
            value={condition.cause}
            options={words(CAUSES)}
            onChange={(id) => set({ cause: id as Condition["cause"] })}
          />
          <Field
            label="Not again by"
            text={condition.countermeasure}
            placeholder="sleeve, new clip, another path"
            onText={(countermeasure) => set({ countermeasure: countermeasure.slice(0, 400) })}
          />
        </Box>
        <Box>
          <Typography variant="h2" sx={{ mt: 2 }}>
            Replace or splice
          </Typography>
          <Pick
            label="End A"
            value={condition.end_a}
            options={words(END_STATES)}
            onChange={(id) => set({ end_a: id as Condition["end_a"] })}
          />
          <Pick
            label="End B"
            value={condition.end_b}
            options={words(END_STATES)}
            onChange={(id) => set({ end_b: id as Condition["end_b"] })}
          />
          {view.plan?.apart
            .filter((one) => one.state !== (one.end === "A" ? condition.end_a : condition.end_b))
            .map((one) => (
              <Box key={one.end} sx={{ fontSize: 14, color: "var(--second)" }}>
                End {one.end} counts as “{one.state}”: so it ended in Remove.
              </Box>
            ))}
          <Pick
            label="Its ends"
            value={condition.part_available ? "yes" : "no"}
            options={[
              { id: "yes", name: "can be bought" },
              { id: "no", name: "cannot be bought" },
            ]}
            onChange={(id) => set({ part_available: id === "yes" })}
          />
          <Pick
            label="Your school"
            value={condition.school}
            options={words(SCHOOLS)}
            onChange={(id) => set({ school: id as Condition["school"] })}
          />
        </Box>
      </Columns>
      <MendWays editor={editor} view={view} />
      <Advice condition={condition} looked={view.plan?.looked ?? null} set={set} />
    </Box>
  );
}
