import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Hold, HoldRow, HoldTold } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { Typed, Word } from "../../ui/Entry";
import { HoldVerdict } from "./HoldVerdict";
import { RunChart } from "./RunChart";

interface Props {
  editor: LineEditor;
  hold: Hold;
  told: HoldTold | undefined;
  again: () => void;
  change: (part: Partial<Hold>) => void;
  takeOut: () => void;
}

const KINDS: Hold["kind"][] = ["liquid", "gas", "vacuum"];
const READS: Hold["reads"][] = ["above the air", "below the air", "absolute"];
const JUDGE_EVERY_MS = 4000;

/** One hold test: how it was read, the readings or the chart, and what they say. */
export function HoldCard({ editor, hold, told, again, change, takeOut }: Props) {
  const { unit } = editor.document;
  const word = unit === "in" ? "psi" : "bar";
  const set = (k: number, part: Partial<HoldRow>) =>
    change({ rows: hold.rows.map((row, i) => (i === k ? { ...row, ...part } : row)) });
  const small = (
    label: string,
    named: string | undefined,
    text: string,
    placeholder: string,
    put: (text: string) => void,
    width = 96,
  ) => (
    <Typed
      label={label}
      {...(named === undefined ? {} : { named })}
      text={text}
      placeholder={placeholder}
      width={width}
      onText={(t) => put(t.slice(0, 24))}
    />
  );
  return (
    <Box data-hold={hold.id} sx={{ border: "1px solid var(--rule)", p: 1, mt: 1, background: "var(--sheet)" }}>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", alignItems: "end" }}>
        <Word
          label="Held with"
          value={hold.kind}
          list={KINDS}
          onChange={(kind) => change({ kind, reads: kind === "vacuum" && !hold.run ? "below the air" : hold.reads })}
        />
        {!hold.run && (
          <Word label="The gauge reads" value={hold.reads} list={READS} onChange={(reads) => change({ reads })} />
        )}
        {small("Volume shut in", "shut in", hold.volume, "ml", (volume) => change({ volume }))}
        {small("Must not reach", "must not reach", hold.threshold, word, (threshold) => change({ threshold }))}
        {small("Within minutes", "within", hold.minutes, "min", (m) => change({ minutes: m }), 76)}
        <Typed
          label="Who watched the gauge"
          named="by whom"
          text={hold.by}
          placeholder="name"
          width={100}
          onText={(by) => change({ by: by.slice(0, 60) })}
        />
        <Button size="small" variant="text" aria-label="Take out this hold test" sx={{ ml: "auto" }} onClick={takeOut}>
          ✕
        </Button>
      </Box>
      {hold.run ? (
        <Recorded run={hold.run} unit={unit} told={told} again={again} />
      ) : (
        <Box sx={{ mt: 0.5 }}>
          {hold.rows.map((row, k) => (
            <Box key={k} sx={{ display: "flex", gap: 0.5, py: 0.25 }}>
              {small(
                `Minutes, reading ${k + 1}`,
                k ? undefined : "minutes",
                row.minutes,
                "min",
                (m) => set(k, { minutes: m }),
                64,
              )}
              {small(`Pressure, reading ${k + 1}`, k ? undefined : "gauge", row.pressure, word, (pressure) =>
                set(k, { pressure }),
              )}
              {small(
                `Temperature, reading ${k + 1}`,
                k ? undefined : "°C",
                row.temperature,
                "°C",
                (t) => set(k, { temperature: t }),
                64,
              )}
            </Box>
          ))}
          <Button
            size="small"
            onClick={() => change({ rows: [...hold.rows, { minutes: "", pressure: "", temperature: "" }] })}
          >
            Another reading
          </Button>
        </Box>
      )}
      <HoldVerdict told={told} />
      {told && told.short.length > 0 && (
        <Box role="group" aria-label="Not what is asked for" sx={{ mt: 0.5, color: "var(--ink)" }}>
          <Box sx={{ font: `600 17px ${condensed}`, color: "var(--caution)" }}>
            Not what is asked for{hold.instead.trim() ? ", taken on." : ": no proof of this line yet."}
          </Box>
          {told.short.map((text) => (
            <Box key={text}>{text}</Box>
          ))}
          <Typed
            label="Why it is taken on all the same"
            text={hold.instead}
            placeholder="why it is taken on all the same"
            width="100%"
            onText={(instead) => change({ instead: instead.slice(0, 400) })}
          />
        </Box>
      )}
    </Box>
  );
}

function Recorded({
  run,
  unit,
  told,
  again,
}: {
  run: string;
  unit: "in" | "mm";
  told: HoldTold | undefined;
  again: () => void;
}) {
  const [mark, setMark] = useState("");
  const [problem, setProblem] = useState("");
  const chart = useQuery({
    queryKey: ["run", run],
    queryFn: () => take(api.GET("/api/runs/{run_id}", { params: { path: { run_id: run }, query: { points: 400 } } })),
    refetchInterval: (query) => (query.state.data?.run.recording ? 1000 : false),
  });
  const on = chart.data?.run.recording ?? false;
  useEffect(() => {
    if (!on) return;
    const timer = window.setInterval(again, JUDGE_EVERY_MS);
    return () => window.clearInterval(timer);
    // asked again on its own beat, not at every drawing
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [on]);
  if (chart.isError) return <Box sx={{ color: "var(--stop)" }}>{sentence(chart.error)}</Box>;
  if (!chart.data) return null;
  const { absolute, silent_s, link, readings, trouble, waiting } = chart.data.run;
  const limit = told?.limit_kpa ?? null;
  const threshold = limit === null || !told ? null : absolute ? limit : limit - told.air_kpa;
  const act = (call: Promise<unknown>) =>
    void call
      .then(() => {
        setProblem("");
        void chart.refetch().then(again);
      })
      .catch((error: unknown) => setProblem(sentence(error)));
  const path = { params: { path: { run_id: run } } };
  return (
    <Box sx={{ mt: 0.75 }}>
      <RunChart
        chart={chart.data}
        unit={unit}
        threshold={threshold}
        hold={told?.asked_s ?? null}
        settled={told?.result?.settled_from_s ?? null}
      />
      <Box role="status" aria-label="The gauge" sx={{ font: `500 16px ${condensed}` }}>
        {readings.toLocaleString("en")} readings{absolute && ", counted from nothing (absolute)"}
        {on && ", recording"}
        {on && (silent_s === null || silent_s > 3) && (
          <Box component="span" sx={{ color: "var(--caution)", fontWeight: 600 }}>
            {" "}
            {link === "on"
              ? "The gauge is silent; what was recorded is kept."
              : `The gauge is ${link === "lost" ? "lost" : "off"}; what was recorded is kept.`}
          </Box>
        )}
        {trouble && (
          <Box sx={{ color: "var(--stop)", fontWeight: 600 }}>
            {waiting.toLocaleString("en")} readings wait to be written. {trouble.split(": ")[0]}: make room, and it goes
            on by itself.
          </Box>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", alignItems: "center", mt: 0.5 }}>
        {on && (
          <>
            <Typed label="Mark" text={mark} placeholder="valve shut" width={130} onText={setMark} />
            <Button
              size="small"
              onClick={() => {
                // the word stays until it is kept
                act(
                  take(api.POST("/api/runs/{run_id}/marks", { ...path, body: { text: mark } })).then(() => setMark("")),
                );
              }}
            >
              Mark it
            </Button>
            <Button
              size="small"
              variant="contained"
              color="secondary"
              onClick={() => act(take(api.POST("/api/runs/{run_id}/end", path)))}
            >
              End the run
            </Button>
          </>
        )}
        <Box component="a" href={`/api/runs/${run}/readings.csv`} sx={{ color: "var(--ink)" }}>
          Readings as CSV
        </Box>
      </Box>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
