import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { Field } from "../../ui/Field";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { bendIds, spanOf, typed, withSpan } from "../../doc/rows";
import { turnsOf } from "../../doc/order";
import { OrderField } from "./OrderField";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** Whether every bend can be made in this order at this tool, which other order works, and the swing. */
export function AtTool({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const span = spanOf(line, editor.tube);
  const { swing, showSwing } = useSelection();
  const at = view.bench?.at;
  // what only a guessed tool body is in the way of is no stop
  const hard = at?.findings.some((finding) => finding.severity === "stop") ?? true;
  const moves = view.part?.moves.length ?? 0;
  const problem = (name: string) =>
    view.plan?.problems.find((item) => item.path === `/spans/${editor.tube}/${name}`)?.message;
  return (
    <Box component="section" aria-label="At the tool" sx={{ mt: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        At the tool
      </Typography>
      {!at && <Box sx={{ color: "var(--second)" }}>Carrying out every bend…</Box>}
      {at && (
        <Box data-order={at.blocked == null ? "free" : "blocked"}>
          <Box
            sx={{
              fontWeight: 600,
              color: at.blocked == null ? "var(--good)" : hard ? "var(--stop)" : "var(--caution)",
            }}
          >
            {at.blocked == null
              ? moves === 0
                ? "A straight piece: nothing is bent."
                : `Every bend can be made in this order on the ${at.tool}.`
              : `Move ${at.blocked} cannot be made: ${at.reason}.`}
          </Box>
          {at.proposal && (
            <Box sx={{ mt: 0.5 }}>
              {at.proposal.text}.{" "}
              <Button
                size="small"
                onClick={() =>
                  at.proposal &&
                  edit((was) =>
                    withSpan(
                      was,
                      {
                        order: turnsOf(at.proposal?.order ?? "", bendIds(spanOf(was, editor.tube))) ?? [],
                        held: at.proposal?.held ?? "A",
                        trim_first: spanOf(was, editor.tube).trim_first || (at.proposal?.trim_first ?? false),
                        turned: at.proposal?.turned ?? spanOf(was, editor.tube).turned,
                      },
                      editor.tube,
                    ),
                  )
                }
              >
                Take this order
              </Button>
            </Box>
          )}
          {at.witness.length > 0 && (
            <Box component="ul" sx={{ my: 0.5, pl: 2.5, fontSize: 14.5, color: "var(--second)" }}>
              {at.witness.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </Box>
          )}
          {at.other_tool && <Box sx={{ mt: 0.5 }}>{at.other_tool.text}</Box>}
          {at.joint && <Box sx={{ mt: 0.5 }}>{at.joint.text}</Box>}
          {!at.whole && (
            <Box sx={{ fontSize: 14, color: "var(--second)" }}>
              Not every order was tried; that would take too long.
            </Box>
          )}
          <Box sx={{ fontSize: 14, color: "var(--second)", mt: 0.5 }}>
            {at.words} It is held {at.mount}
            {span.turned && at.mount !== "in the hands" ? ", turned round" : ""}.
          </Box>
        </Box>
      )}
      {moves > 0 && (
        <Box
          role="group"
          aria-label="See the swing of a move"
          sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.5, mt: 1 }}
        >
          <Box sx={{ color: "var(--second)", mr: 0.5 }}>See move</Box>
          {view.part?.moves.map((move, k) => (
            <Button
              key={move.bend}
              size="small"
              aria-pressed={swing === k + 1}
              onClick={() => showSwing(swing === k + 1 ? null : k + 1)}
              sx={{
                minWidth: 44,
                ...(at?.blocked === k + 1 ? { borderColor: "var(--stop)", color: "var(--stop)" } : {}),
                ...(swing === k + 1 ? { background: "var(--ink)", color: "var(--paper)" } : {}),
              }}
            >
              {k + 1}
            </Button>
          ))}
        </Box>
      )}
      <Box sx={{ mt: 1 }}>
        <OrderField editor={editor} problem={problem("order")} />
        <Field
          label="Bent from"
          text={span.stock.text}
          placeholder="cut to length first"
          problem={problem("stock")}
          takes="length"
          onText={(text) => edit((was) => withSpan(was, { stock: typed(text, line.unit) }, editor.tube))}
        />
        <FormControlLabel
          control={
            <Checkbox
              color="default"
              checked={span.trim_first}
              onChange={(event) => edit((was) => withSpan(was, { trim_first: event.target.checked }, editor.tube))}
            />
          }
          label="Cut the spare off before bending"
        />
        {at && at.mount !== "in the hands" && (
          <FormControlLabel
            control={
              <Checkbox
                color="default"
                checked={span.turned}
                onChange={(event) => edit((was) => withSpan(was, { turned: event.target.checked }, editor.tube))}
              />
            }
            label="Tool turned round, fed from its other side"
          />
        )}
      </Box>
    </Box>
  );
}
