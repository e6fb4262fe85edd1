import Box from "@mui/material/Box";
import { useSelection } from "../doc/select";
import type { LineEditor } from "../doc/useLine";
import type { PlanView } from "../doc/usePlan";
import { useWorking } from "../doc/useWorking";
import { Findings } from "./Findings";
import { Working } from "../ui/Working";

interface Props {
  editor: LineEditor;
  view: PlanView;
  name: string;
}

/** Beside the line: what is wrong or risky, or the working of the figure that was asked about. */
export function Side({ editor, view, name }: Props) {
  const { working, showWorking } = useSelection();
  const derivation = useWorking(editor.document, editor.tube, working);
  return (
    <Box component="section" aria-label={name} sx={{ p: 2 }}>
      {derivation ? (
        <Working derivation={derivation} onClose={() => showWorking(null)} />
      ) : (
        <Findings editor={editor} view={view} />
      )}
    </Box>
  );
}
