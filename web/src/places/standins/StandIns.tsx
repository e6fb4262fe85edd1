import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { FieldKind, StandInOrder } from "../../api/types";
import { Bar } from "../../ui/Bar";
import { useNotice } from "../../ui/notice";
import { Field } from "../../ui/Field";
import { condensed } from "../../theme/theme";
import { NAMES } from "../../instruments/useInstruments";

const SHOWS: Record<FieldKind, string[]> = {
  caliper: ["reads, mm"],
  gauge: ["reads, °"],
  probe: ["x, mm", "y, mm", "z, mm"],
};

/** Instruments that exist only here, to be worked by hand from a second window. */
export default function StandIns() {
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Simulated gauges" />
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        <Box sx={{ mb: 2, maxWidth: 640 }}>
          They stand in for real ones. Keep a line open in another window with its gauges on and the cursor in a
          reading, then send from here.
        </Box>
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(280px, 1fr))", gap: 4 }}>
          {(Object.keys(SHOWS) as FieldKind[]).map((kind) => (
            <StandIn key={kind} kind={kind} />
          ))}
          <VesselStandIn />
          <SupplierStandIn />
        </Box>
      </Box>
    </>
  );
}

/** A vessel under pressure with its gauge: set it, let it leak, cut the connection. */
function VesselStandIn() {
  const notice = useNotice();
  const [told, setTold] = useState("off");
  const [typed, setTyped] = useState({ start: "400", leak: "0", settles: "4", noise: "0.4", speed: "1" });
  const fields: { name: keyof typeof typed; label: string }[] = [
    { name: "start", label: "from the air, kPa" },
    { name: "leak", label: "leak, kPa/min" },
    { name: "settles", label: "settles, kPa" },
    { name: "noise", label: "noise, kPa" },
    { name: "speed", label: "times faster" },
  ];
  const wrong = Object.values(typed).some((text) => !Number.isFinite(Number(text)));
  const order = {
    start_kpa: Number(typed.start),
    leak_kpa_min: Number(typed.leak),
    settles_kpa: Number(typed.settles),
    noise_kpa: Number(typed.noise),
    warms_c: 0,
    per_second: 10,
    speed: Number(typed.speed),
  };
  const act = (call: Promise<unknown>, word: string) =>
    void call.then(() => setTold(word)).catch((error: unknown) => notice({ text: sentence(error) }));
  const put = (act_: "stop" | "off" | "lose" | "nonsense") =>
    take(api.POST("/api/standins/vessel/{act}", { params: { path: { act: act_ } } }));
  return (
    <Box component="section" aria-label="pressure gauge">
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
        pressure gauge
      </Box>
      {fields.map(({ name, label }) => (
        <Field
          key={name}
          label={label}
          text={typed[name]}
          problem={Number.isFinite(Number(typed[name])) ? undefined : "A plain number."}
          onText={(text) => setTyped((was) => ({ ...was, [name]: text }))}
        />
      ))}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <Button
          variant="contained"
          disabled={wrong}
          onClick={() => act(take(api.POST("/api/standins/vessel", { body: order })), "sending")}
        >
          Set it and send
        </Button>
        <Button onClick={() => act(put("stop"), "silent")}>Stop sending</Button>
        <Button onClick={() => act(put("off"), "off")}>Switch off</Button>
        <Button onClick={() => act(put("lose"), "connection cut")}>Cut the connection</Button>
        <Button onClick={() => act(put("nonsense"), "sent nonsense")}>Send nonsense</Button>
      </Box>
      <Box role="status" sx={{ mt: 1, color: "var(--second)" }}>
        {told}
      </Box>
    </Box>
  );
}

/** The price service that kit lists ask; it can be made not to answer. */
function SupplierStandIn() {
  const client = useQueryClient();
  const notice = useNotice();
  const state = useQuery({ queryKey: ["supplier"], queryFn: () => take(api.GET("/api/standins/supplier")) });
  const set = (answers: boolean) =>
    void take(api.PUT("/api/standins/supplier", { body: { answers } }))
      .then(() => Promise.all([["supplier"], ["kit"]].map((queryKey) => client.invalidateQueries({ queryKey }))))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  return (
    <Box component="section" aria-label="Supplier">
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
        Supplier
      </Box>
      <Box sx={{ mb: 1 }}>Its prices are invented; the shop’s own go before them.</Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button onClick={() => set(true)}>Let it answer</Button>
        <Button onClick={() => set(false)}>Let it not answer</Button>
      </Box>
      <Box role="status" sx={{ mt: 1, color: "var(--second)" }}>
        {state.data?.answers === false ? "does not answer" : "answers"}
      </Box>
    </Box>
  );
}

function StandIn({ kind }: { kind: FieldKind }) {
  const [shown, setShown] = useState<string[]>(
    kind === "gauge" ? ["90"] : kind === "caliper" ? ["25.4"] : ["0", "0", "0"],
  );
  const [told, setTold] = useState("off");
  const notice = useNotice();
  const figures = shown.map(Number);
  const wrong = figures.some((figure) => !Number.isFinite(figure));
  const act = (order: Partial<StandInOrder> & { act: StandInOrder["act"] }, word: string) =>
    void take(
      api.POST("/api/instruments/{kind}/simulated", {
        params: { path: { kind } },
        body: { figures: [], unit: "mm", ...order },
      }),
    )
      .then(() => setTold(word))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  return (
    <Box component="section" aria-label={NAMES[kind]}>
      <Box component="h2" sx={{ m: 0, font: `600 22px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
        {NAMES[kind]}
      </Box>
      {SHOWS[kind].map((label, k) => (
        <Field
          key={label}
          label={label}
          text={shown[k] ?? ""}
          problem={Number.isFinite(figures[k]) ? undefined : "A plain number."}
          onText={(text) => setShown((was) => was.map((item, i) => (i === k ? text : item)))}
        />
      ))}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <Button variant="contained" disabled={wrong} onClick={() => act({ act: "send", figures }, "sent")}>
          Send
        </Button>
        <Button onClick={() => act({ act: "on" }, "on")}>Switch on</Button>
        <Button onClick={() => act({ act: "off" }, "off")}>Switch off</Button>
        <Button onClick={() => act({ act: "lose" }, "connection cut")}>Cut the connection</Button>
        <Button onClick={() => act({ act: "return" }, "on")}>Mend it</Button>
        <Button onClick={() => act({ act: "nonsense" }, "sent nonsense")}>Send nonsense</Button>
      </Box>
      <Box role="status" sx={{ mt: 1, color: "var(--second)" }}>
        {told}
      </Box>
    </Box>
  );
}
