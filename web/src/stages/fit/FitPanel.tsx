import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Line } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { useCatalogue } from "../../doc/useCatalogue";
import { Cautions } from "../../ui/Cautions";
import { Columns } from "../../ui/Columns";
import { Ticks } from "../../ui/Ticks";
import { BackForTheJob } from "./BackForTheJob";
import { Holding, InOrder } from "./Holding";
import { OpenItems } from "./OpenItems";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** The removal log backwards, ticked off one by one; what is left open; and whether the line is done. */
export function FitPanel({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const removed = view.plan?.removed;
  const refit = removed?.refit ?? [];
  const tick = (id: string, on: boolean) =>
    edit((was) => ({
      ...was,
      removal: {
        ...was.removal,
        items: was.removal.items.map((item, k) => (k === Number(id) ? { ...item, refitted: on } : item)),
      },
    }));
  const catalogue = useCatalogue();
  const said = new Set(catalogue?.services.find((row) => row.id === line.service)?.cautions);
  const texts = (catalogue?.cautions ?? [])
    .filter((row) => said.has(row.id) && (row.stages.includes("fit") || row.stages.includes("prove")))
    .map((row) => row.text);
  const waiting = removed?.open_items.length ?? 0;
  const over = removed?.left_over ?? [];

  return (
    <Box sx={{ p: 2 }}>
      <Cautions texts={texts} />
      <Columns>
        <Box>
          <HowItWas line={line} />
          {view.piece?.clips && !view.old && <Holding clips={view.piece.clips} unit={line.unit} />}
          {view.part && !view.old && <InOrder line={editor.document} tube={editor.tube} />}
        </Box>
        <Box>
          <Typography variant="h2">Back together</Typography>
          {refit.length === 0 && (
            <Box sx={{ color: "var(--second)" }}>The removal log turns round here: last off, first on.</Box>
          )}
          <Ticks
            list={refit.map((step) => ({ id: String(step.item), text: step.text }))}
            done={new Set(line.removal.items.flatMap((item, k) => (item.refitted ? [String(k)] : [])))}
            onTick={tick}
          />
          {refit.length > 0 && (
            <Box
              role="status"
              aria-label="Left over"
              sx={{ mt: 1, color: over.length > 0 ? "var(--caution)" : "var(--good)", fontWeight: 600 }}
            >
              {over.length > 0 ? `Left over: ${over.join(" · ")}` : "Nothing left over."}
            </Box>
          )}
          <BackForTheJob jobId={editor.opened.job_id} lineId={editor.opened.id} />
          <OpenItems items={line.open_items} set={(open_items) => edit((was) => ({ ...was, open_items }))} />
          <Box sx={{ mt: 3, borderTop: "2px solid var(--ink)", pt: 1.5 }}>
            {removed?.done ? (
              <>
                <Box sx={{ fontWeight: 600, color: "var(--good)", mb: 1 }}>This line is done.</Box>
                <Button variant="text" onClick={() => edit((was) => ({ ...was, finished: false }))}>
                  Take it up again
                </Button>
              </>
            ) : (
              <>
                <Button
                  fullWidth
                  variant="contained"
                  color="secondary"
                  disabled={waiting > 0 || over.length > 0}
                  onClick={() => edit((was) => ({ ...was, finished: true }))}
                  sx={{ minHeight: 48, fontSize: 20 }}
                >
                  The line is done
                </Button>
                {(waiting > 0 || over.length > 0) && (
                  <Box sx={{ mt: 0.5, color: "var(--second)" }}>
                    {[
                      waiting > 0 && `${waiting} open ${waiting === 1 ? "item" : "items"} to close`,
                      over.length > 0 && `${over.length} to refit`,
                    ]
                      .filter(Boolean)
                      .join(", ")}{" "}
                    first.
                  </Box>
                )}
              </>
            )}
          </Box>
        </Box>
      </Columns>
    </Box>
  );
}

/** What was noted while it came off, for the way back. */
function HowItWas({ line }: { line: Line }) {
  const { machine_state, two_people, went_out } = line.removal;
  const noted = [
    ...machine_state,
    ...(two_people ? ["two people"] : []),
    ...(went_out.trim() ? [`it went out ${went_out.trim()}`] : []),
  ];
  if (noted.length === 0) return null;
  return (
    <Box component="section" aria-label="As it was when it came off" sx={{ mb: 1.5 }}>
      <Typography variant="h2">As it was when it came off</Typography>
      <Box>{noted.join(" · ")}</Box>
    </Box>
  );
}
