import Box from "@mui/material/Box";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Field, Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import { condensed } from "../../theme/theme";
import { Ask } from "./Ask";
import { useAsked } from "../../doc/useAsked";

const NAMES = {
  "wire insert": "Wire insert, keeps",
  "next thread": "Next thread,",
  "next taper": "Next tapered size,",
  bushing: "Bushing in",
} as const;

/** A port whose thread is gone: insert or next thread, what to drill, and whether metal and room allow it. */
export function StrippedLookup() {
  const [thread, setThread] = useState("M10x1");
  const [boss, setBoss] = useState("");
  const [room, setRoom] = useState("");
  const [service, setService] = useState("");
  const [seat, setSeat] = useState("");
  const catalogue = useCatalogue();
  const order = { thread, service, seat, boss, room, unit: "mm" as const };
  const { answer, problem } = useAsked(
    ["stripped", order],
    (signal) => take(api.POST("/api/lookups/stripped", { body: order, signal })),
    { wanted: thread.trim() !== "" },
  );
  return (
    <Ask
      hint="Drilling a port is a job of its own: log it and cost it. Plug the passage behind with grease, and flush the chips out before anything is fitted."
      problem={problem}
      answer={
        answer?.refused ? (
          <Box role="status" sx={{ fontWeight: 600, color: "var(--stop)", py: 1 }}>
            {answer.refused}
          </Box>
        ) : (
          answer?.ways.map((way) => (
            <Box key={way.way + way.tap} data-rescue={way.thread} sx={{ py: 1, borderTop: "1px solid var(--rule)" }}>
              <Box sx={{ display: "flex", gap: 2, alignItems: "baseline", flexWrap: "wrap" }}>
                <Box sx={{ font: `600 20px ${condensed}` }}>
                  {NAMES[way.way]} {way.thread}
                </Box>
                <Box
                  sx={{
                    color: way.ok === false ? "var(--stop)" : way.ok ? "var(--good)" : "var(--second)",
                    fontWeight: 600,
                  }}
                >
                  {way.ok === false ? "not here" : way.ok ? "possible" : "measure first"}
                </Box>
              </Box>
              <Box>
                Drill {way.drill_mm.toFixed(1)} mm, tap {way.tap}, {way.thread_length_mm.toFixed(0)} mm of thread;{" "}
                {way.room_mm.toFixed(0)} mm of room in front.
              </Box>
              <Box sx={{ color: "var(--second)" }}>{way.reason}</Box>
            </Box>
          ))
        )
      }
    >
      <Field label="Port thread" text={thread} onText={(text) => setThread(text.slice(0, 40))} />
      <Pick
        label="It carries"
        value={service}
        options={[
          { id: "", name: "say it first" },
          ...(catalogue?.services ?? []).map(({ id, name }) => ({ id, name })),
        ]}
        onChange={setService}
      />
      <Pick
        label="Its seat"
        value={seat}
        options={[
          { id: "", name: "not looked at yet" },
          ...(catalogue?.seats ?? []).map(({ id, name }) => ({ id, name })),
        ]}
        onChange={setSeat}
      />
      <Field
        label="Metal across"
        text={boss}
        placeholder="the boss, flat to flat"
        takes="length"
        onText={(text) => setBoss(text.slice(0, 40))}
      />
      <Field
        label="Room in front"
        text={room}
        placeholder="for drill and tap"
        takes="length"
        onText={(text) => setRoom(text.slice(0, 40))}
      />
    </Ask>
  );
}
