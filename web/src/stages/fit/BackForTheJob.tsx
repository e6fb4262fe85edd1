import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useStripDown } from "../../doc/useStripDown";
import { Ticks } from "../../ui/Ticks";

/** What came off once for several lines goes back on once, when the last of them is in. */
export function BackForTheJob({ jobId, lineId }: { jobId: string; lineId: string }) {
  const { value: items, kept, problem, change } = useStripDown(jobId);
  const here = new Set(
    items.filter((item) => item.lines.length === 0 || item.lines.includes(lineId)).map((item) => item.id),
  );
  const steps = kept?.back.filter((step) => here.has(step.item)) ?? [];
  if (steps.length === 0) return null;
  return (
    <Box component="section" aria-label="Back on for the whole job" sx={{ mt: 2 }}>
      <Typography variant="h2">Back on for the whole job</Typography>
      <Box sx={{ fontSize: 14, color: "var(--second)" }}>Once, when the last line behind it is in and dry.</Box>
      <Ticks
        list={steps.map((step) => ({ id: step.item, text: step.text }))}
        done={new Set(items.filter((item) => item.refitted).map((item) => item.id))}
        onTick={(id, on) => change(items.map((item) => (item.id === id ? { ...item, refitted: on } : item)))}
      />
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
