import Box from "@mui/material/Box";
import { useSearchParams } from "react-router";
import { api, take } from "../../api/client";
import type { ThreadPair } from "../../api/types";
import { Field } from "../../ui/Field";
import { condensed } from "../../theme/theme";
import { Ask } from "./Ask";
import { Profiles } from "./Profiles";
import { useAsked } from "../../doc/useAsked";

const SAYS = {
  fits: "It fits.",
  binds: "It starts, and jams.",
  loose: "It does not hold.",
  will_not_start: "It does not start.",
} as const;

/** One thread turned into another, with both profiles to scale. */
export function PairLookup() {
  const [params, setParams] = useSearchParams({ male: "3/8-24", female: "M10x1" });
  const order = { male: params.get("male") ?? "", female: params.get("female") ?? "" };
  const set = (part: Partial<typeof order>) => setParams({ ...order, ...part }, { replace: true });
  const ready = order.male.trim() !== "" && order.female.trim() !== "";
  const { answer, problem } = useAsked(
    ["pair", order],
    (signal) => take(api.POST("/api/lookups/thread-pair", { body: order, signal })),
    { wanted: ready },
  );
  return (
    <Ask
      hint="A male thread in a female one, as stamped or as found: 3/8-24, M10x1, 1/8 NPT, G1/4, R1/8."
      problem={problem}
      answer={answer && <Pair pair={answer} />}
    >
      <Field label="Male" text={order.male} onText={(male) => set({ male: male.slice(0, 40) })} />
      <Field label="Female" text={order.female} onText={(female) => set({ female: female.slice(0, 40) })} />
    </Ask>
  );
}

function Pair({ pair }: { pair: ThreadPair }) {
  const { fit } = pair;
  return (
    <>
      <Box
        sx={{ font: `600 26px ${condensed}`, color: fit?.verdict === "fits" ? "var(--good)" : "var(--stop)" }}
        data-verdict={fit?.verdict ?? "refused"}
      >
        {fit ? SAYS[fit.verdict] : "Never together."}
      </Box>
      <Box sx={{ mb: 1 }}>
        {pair.refused}
        {fit && (
          <>
            {pair.male} in {pair.female}: {fit.clearance_mm.toFixed(2)} mm between the pitch diameters
            {fit.turns_before_binding != null &&
              (fit.turns_before_binding < 0.1
                ? ", binds at once"
                : `, binds after about ${fit.turns_before_binding.toFixed(1)} turns`)}
            {fit.starts && `, ${(fit.engagement * 100).toFixed(0)} % of a proper thread holding`}.
          </>
        )}
      </Box>
      <Profiles title={`${pair.male} in ${pair.female}`} pair={pair.mated} mated />
      {pair.test && (
        <>
          <Box sx={{ font: `600 19px ${condensed}`, mt: 2 }}>To tell them apart</Box>
          <Box>{pair.test}</Box>
          <Profiles title="Both as male threads, laid over one another" pair={pair.overlaid} mated={false} />
        </>
      )}
    </>
  );
}
