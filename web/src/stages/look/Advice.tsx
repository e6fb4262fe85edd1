import Box from "@mui/material/Box";
import type { Condition, Looked } from "../../api/types";
import { Field } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { Segments } from "../../ui/Segments";
import { CHOICES } from "../../format/words";

interface Props {
  condition: Condition;
  looked: Looked | null;
  set: (change: Partial<Condition>) => void;
}

const SHORT: Record<(typeof CHOICES)[number], string> = {
  "replace whole": "replace whole",
  "replace from a separation point": "from a joint",
  splice: "splice",
};

/** The arguments for and against, what they come out for, and what the person decides. */
export function Advice({ condition, looked, set }: Props) {
  const advice = looked?.recommendation;
  const decision = condition.decision ?? null;
  if (!advice)
    return (
      <Box sx={{ mt: 1, color: "var(--second)" }}>Note a reason or some damage, and the arguments appear here.</Box>
    );
  return (
    <Box sx={{ mt: 1 }} data-advice={advice.choice}>
      <Box sx={{ font: `600 20px ${condensed}`, borderBottom: "2.5px solid var(--tube)", display: "inline-block" }}>
        {advice.choice}
      </Box>
      <Box sx={{ color: "var(--second)" }}>is what the arguments come out for.</Box>
      <Box component="ul" sx={{ m: 0, mt: 1, p: 0, listStyle: "none" }}>
        {advice.arguments.map((argument) => (
          <Box component="li" key={argument.id} sx={{ py: 0.75, borderTop: "1px solid var(--rule)" }}>
            <Box sx={{ fontWeight: 600, color: argument.weight > 0 ? "var(--good)" : "var(--stop)" }}>
              speaks {argument.weight > 0 ? "for" : "against"}: {argument.choice}
            </Box>
            {argument.text}
            <SourceLine source={argument.source} />
          </Box>
        ))}
      </Box>
      <Box sx={{ mt: 1, mb: 0.5 }}>Decided:</Box>
      <Segments
        label="Decided"
        value={decision?.choice ?? ("" as never)}
        options={CHOICES.map((choice) => ({ value: choice, text: SHORT[choice] }))}
        onChange={(choice) => set({ decision: { choice, reason: decision?.reason ?? "" } })}
      />
      {decision && (
        <Field
          label="Because"
          text={decision.reason}
          placeholder="kept with the line"
          onText={(reason) => set({ decision: { ...decision, reason: reason.slice(0, 400) } })}
        />
      )}
    </Box>
  );
}
