import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Closing, FillRow, Step } from "../../api/types";
import { blankFill, changed, localTime, withProving } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { Typed, Word } from "../../ui/Entry";

interface Props {
  editor: LineEditor;
  closing: Closing;
  step: Step;
}

type Asked = Step["asks"][number];
const ASKS: Record<Exclude<Asked, "air">, { label: string; named: string; hint: string }> = {
  into: { label: "Fluid in", named: "in", hint: "ml" },
  out: { label: "Fluid out", named: "out", hint: "ml" },
  level: { label: "Change of level", named: "level", hint: "± ml" },
  seconds: { label: "Seconds", named: "time", hint: "s" },
  value: { label: "Reading", named: "reading", hint: "as seen" },
};
const AIR = ["", "none", "a little", "much"] as const;

/** The log of one step of a guided run: a row a turn, or a row a wheel. */
export function FillLog({ editor, closing, step }: Props) {
  const rows = editor.document.proving.fills.filter((row) => row.step === step.run);
  const change = (id: string, part: Partial<FillRow>) =>
    editor.edit((was) => withProving(was, ({ fills }) => ({ fills: changed(fills, id, part) })));
  const add = (place = "") =>
    editor.edit((was) =>
      withProving(was, ({ fills }) => ({
        fills: [...fills, blankFill(was, step.run, localTime(new Date()), place)],
      })),
    );
  const out = (id: string) =>
    editor.edit((was) => withProving(was, ({ fills }) => ({ fills: fills.filter((row) => row.id !== id) })));
  const places = step.by_place ? closing.places : [];
  const missing = places.filter((place) => !rows.some((row) => row.place === place));
  const next = missing[0];
  return (
    <Box sx={{ mt: 0.25 }}>
      {rows.map((row, k) => (
        <Box
          key={row.id}
          data-fill={row.id}
          sx={{ display: "flex", alignItems: "end", gap: 0.5, flexWrap: "wrap", py: 0.25 }}
        >
          <Box sx={{ pb: 0.75, color: "var(--second)", fontSize: 14, minWidth: 52 }}>
            {row.place || `turn ${k + 1}`}
          </Box>
          {step.asks.map((asked) =>
            asked === "air" ? (
              <Word
                key={asked}
                label={`Air seen, ${row.place || `turn ${k + 1}`}`}
                value={row.air || "air?"}
                list={["air?", ...AIR.slice(1)]}
                onChange={(air) => change(row.id, { air: air === "air?" ? "" : air })}
              />
            ) : (
              <Typed
                key={asked}
                label={`${ASKS[asked].label}, ${row.place || `turn ${k + 1}`}`}
                named={ASKS[asked].named}
                text={row[asked]}
                placeholder={ASKS[asked].hint}
                width={80}
                onText={(text) => change(row.id, { [asked]: text.slice(0, 24) })}
              />
            ),
          )}
          <Button
            size="small"
            variant="text"
            aria-label={`Take out ${row.place || `turn ${k + 1}`}`}
            sx={{ minWidth: 32, px: 0.5 }}
            onClick={() => out(row.id)}
          >
            ✕
          </Button>
        </Box>
      ))}
      {next ? (
        <Button size="small" sx={{ mt: 0.5 }} onClick={() => add(next)}>
          Log {next}
        </Button>
      ) : (
        (rows.length === 0 || step.again) &&
        !step.by_place && (
          <Button size="small" sx={{ mt: 0.5 }} onClick={() => add()}>
            {rows.length === 0 ? "Log it" : "Log another turn"}
          </Button>
        )
      )}
      {step.by_place && <Order editor={editor} places={places} orders={closing.orders} />}
    </Box>
  );
}

const MANUAL = "manual";
const same = (one: readonly string[], other: readonly string[]) =>
  one.length === other.length && one.every((place, k) => place === other[k]);

/** The order of the places: one of the usual ones by layout, or typed as the machine's manual gives it. */
function Order({
  editor,
  places,
  orders,
}: {
  editor: LineEditor;
  places: readonly string[];
  orders: Closing["orders"];
}) {
  const [byManual, setByManual] = useState(false);
  const set = (next: string[]) => editor.edit((was) => withProving(was, () => ({ places: next })));
  const swap = (k: number) =>
    set(places.map((place, i) => (i === k - 1 ? (places[k] ?? place) : i === k ? (places[k - 1] ?? place) : place)));
  const usual = orders.find((order) => order.places.length > 0 && same(order.places, places));
  const chosen = byManual || !usual ? orders.find((order) => order.id === MANUAL) : usual;
  return (
    <Box
      component="details"
      open={chosen?.id === MANUAL || undefined}
      sx={{ mt: 0.5, "& summary": { cursor: "pointer", minHeight: 32, color: "var(--second)" } }}
    >
      <summary>Order of the wheels: {chosen?.name}</summary>
      <Word
        label="In which order"
        value={chosen?.name ?? ""}
        list={orders.map((order) => order.name)}
        onChange={(name) => {
          const picked = orders.find((order) => order.name === name);
          setByManual(picked?.places.length === 0);
          if (picked && picked.places.length > 0) set([...picked.places]);
        }}
      />
      <Box sx={{ fontSize: 14, color: "var(--second)" }}>{chosen?.reason}</Box>
      {places.map((place, k) => (
        <Box key={k} sx={{ display: "flex", gap: 0.5, py: 0.25 }}>
          <Typed
            label={`Place ${k + 1}`}
            text={place}
            placeholder="which wheel"
            width="100%"
            onText={(text) => set(places.map((one, i) => (i === k ? text.slice(0, 80) : one)))}
          />
          <Button size="small" disabled={k === 0} onClick={() => swap(k)} aria-label={`${place} earlier`}>
            ↑
          </Button>
        </Box>
      ))}
    </Box>
  );
}
