import Button from "@mui/material/Button";
import { useStripDown } from "../../doc/useStripDown";
import { ItemRows, NOTHING } from "../../workspace/ItemRows";
import { shared, SharedLog } from "../../workspace/SharedLog";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Removal, RemovedItem } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Cautions } from "../../ui/Cautions";
import { Columns } from "../../ui/Columns";
import { Ticks } from "../../ui/Ticks";
import { condensed } from "../../theme/theme";
import { Apart } from "./Apart";
import { Parts } from "./Parts";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

const FLUID: Removal["fluid"][] = ["not looked at", "clean, goes back", "dirty or burnt", "changed on purpose"];
const STATES = ["wheel off", "steering at left lock", "steering at right lock", "on stands", "tray off"];

/** Before it comes off, what it needed, and everything that came off in that order. */
export default function RemovePanel({ editor, view }: Props) {
  const { removal } = editor.document;
  const set = (change: Partial<Removal>) => editor.edit((was) => ({ ...was, removal: { ...was.removal, ...change } }));
  const log = useStripDown(editor.opened.job_id);
  const forAll = (item: RemovedItem) => {
    log.change([...log.value, shared(item)]);
    set({ items: removal.items.filter((one) => one !== item) });
  };
  const removed = view.plan?.removed;
  const advice = removed?.advice;
  const done = new Set(removal.done);
  const tick = (id: string, on: boolean) =>
    set({ done: on ? [...removal.done, id] : removal.done.filter((item) => item !== id) });
  const states = new Set(removal.machine_state);
  const own = removal.machine_state.filter((state) => !STATES.includes(state)).join(", ");

  return (
    <Box sx={{ p: 2 }}>
      {advice && <Cautions texts={advice.cautions} />}
      <Columns>
        {advice && (
          <Box>
            <Typography variant="h2">Before a joint is opened</Typography>
            <Ticks list={advice.steps} done={done} onTick={tick} />
            <Ticks
              list={[{ id: "shut", text: "a hose is clamped shut instead" }]}
              done={new Set(removal.hose_shut ? ["shut"] : [])}
              onTick={(_, hose_shut) => set({ hose_shut })}
            />
            <Box sx={{ mt: 1 }}>
              {advice.drain_text}{" "}
              <strong>
                {advice.drain === "reservoir"
                  ? "Reservoir first."
                  : advice.drain === "upper end"
                    ? "Upper end first."
                    : "Low end first."}
              </strong>
            </Box>
            <Field
              label="In the system"
              text={removal.volume}
              placeholder={`usually about ${sayLitres(advice.volume_l)}`}
              problem={advice.problem || undefined}
              onText={(volume) => set({ volume: volume.slice(0, 20) })}
            />
            <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
              pan for <Box sx={{ font: `600 22px ${condensed}` }}>{sayLitres(advice.pan_l)}</Box>
            </Box>
            <Pick
              label="Old fluid"
              value={removal.fluid}
              options={FLUID.map((id) => ({ id, name: id }))}
              onChange={(fluid) => set({ fluid: fluid as Removal["fluid"] })}
            />
            <SourceLine source={advice.source} />
          </Box>
        )}
        <Box>
          {advice && (
            <>
              <Typography variant="h2">Plug as it opens</Typography>
              <Ticks list={advice.plugs} done={done} onTick={tick} />
            </>
          )}
          {view.plan && view.plan.apart.length > 0 && (
            <Box sx={{ mt: 2 }}>
              <Apart apart={view.plan.apart} taken={removal.apart} set={(apart) => set({ apart })} />
            </Box>
          )}
          <Typography variant="h2" sx={{ mt: 2 }}>
            What it needed
          </Typography>
          <Ticks
            list={[...STATES.map((state) => ({ id: state, text: state })), { id: "two", text: "two people" }]}
            columns
            done={new Set([...states, ...(removal.two_people ? ["two"] : [])])}
            onTick={(id, on) => {
              if (id === "two") set({ two_people: on });
              else
                set({
                  machine_state: on
                    ? [...removal.machine_state, id]
                    : removal.machine_state.filter((state) => state !== id),
                });
            }}
          />
          <Field
            label="Also"
            text={own}
            placeholder="machine 400 mm up, bonnet off"
            onText={(text) =>
              set({
                machine_state: [
                  ...removal.machine_state.filter((state) => STATES.includes(state)),
                  ...(text === "" ? [] : [text.slice(0, 80)]),
                ],
              })
            }
          />
          <Field
            label="It went out"
            text={removal.went_out}
            placeholder="to the left, over the axle"
            onText={(went_out) => set({ went_out: went_out.slice(0, 80) })}
          />
        </Box>
      </Columns>
      <SharedLog jobId={editor.opened.job_id} log={log} />
      <ItemRows
        title="Off with this line, in this order"
        hint="Every fastener, clip and bracket as it comes off, with its wrench and its place."
        items={removal.items}
        singleUse={removed?.single_use.kinds ?? []}
        blank={() => NOTHING}
        set={(items) => set({ items })}
        more={(item, _, n) => (
          <Box sx={{ pl: "24px" }}>
            <Button
              size="small"
              variant="text"
              aria-label={`Off for the whole job: ${n}`}
              disabled={log.kept === null}
              onClick={() => forAll(item)}
            >
              Off for the whole job
            </Button>
          </Box>
        )}
      />
      <Parts parts={removed?.parts ?? []} />
    </Box>
  );
}

const sayLitres = (litres: number): string =>
  litres < 1 ? `${Math.ceil(litres * 100 - 1e-6) * 10} ml` : `${(Math.ceil(litres * 10 - 1e-6) / 10).toString()} L`;
