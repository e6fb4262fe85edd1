import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useMaking } from "../../doc/useMaking";
import { TrialFit } from "../../workspace/fitting/TrialFit";

/** The trial fit of a part whose bends are all made, beside its order of work. */
export function FitHere({ lineId, span }: { lineId: string; span: string }) {
  const { editor, problem } = useMaking(lineId, span);
  if (problem) return <Box role="alert">{problem}</Box>;
  if (!editor) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h2">Trial fit</Typography>
      <TrialFit editor={editor} large={false} />
    </Box>
  );
}
