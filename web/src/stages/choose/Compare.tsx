import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { api, sentence, take } from "../../api/client";
import type { PricedChoice } from "../../api/types";
import { sayMoney } from "../../format/amounts";
import type { LineEditor } from "../../doc/useLine";
import { Dialog } from "../../ui/Dialog";
import { condensed } from "../../theme/theme";
import { VerdictMark } from "../../ui/VerdictMark";

interface Props {
  editor: LineEditor;
  onClose: () => void;
}

const RULES = { stop: "does not fit the rules", caution: "with care", note: "fits the rules" } as const;

const ROWS: { name: string; of: (row: PricedChoice) => ReactNode }[] = [
  { name: "The rules", of: ({ choice }) => <Rules choice={choice} /> },
  {
    name: "Ends",
    of: ({ choice }) =>
      `${choice.ends[0] === choice.ends[1] ? choice.ends[0] : choice.ends.join(" / ")}${choice.adapters > 0 ? `, with ${choice.adapters === 1 ? "an adapter" : `${choice.adapters} adapters`}` : ""}`,
  },
  { name: "Bends", of: ({ choice }) => `${choice.bends} (${choice.bender_name})` },
  { name: "Flaring", of: ({ choice }) => choice.flares },
  { name: "Corrections in place", of: ({ choice }) => (choice.tweaks ? "yes" : "no: out, bend, in again") },
  {
    name: "Pressure, tube",
    of: ({ choice }) => (choice.margin == null ? "–" : `${choice.margin.toFixed(choice.margin < 2 ? 2 : 1)} × working`),
  },
  { name: "Weight", of: ({ choice }) => `${Math.round(choice.mass_g)} g` },
  {
    name: "Tube and nuts",
    of: ({ cents, unpriced }) => `${sayMoney(cents)}${unpriced > 0 ? `, ${unpriced} without a price` : ""}`,
  },
  {
    name: "In stock",
    of: ({ in_stock, short }) =>
      short.length === 0 ? "all of it" : in_stock.length === 0 ? "nothing" : `all but ${short.join(", ")}`,
  },
];

/** Two to four complete choices side by side; one click takes one. */
export function Compare({ editor, onClose }: Props) {
  const choices = useQuery({
    queryKey: ["compare", editor.document, editor.tube],
    queryFn: () => take(api.POST("/api/compare", { body: editor.document, params: { query: { span: editor.tube } } })),
    gcTime: 0,
  });
  const takeOne = ({ choice }: PricedChoice) => {
    const { spans, joints, port_a, port_b } = choice.document;
    editor.edit((was) => ({ ...was, spans, joints, port_a, port_b }));
    onClose();
  };
  return (
    <Dialog
      title="Complete choices for this line"
      width={1200}
      onClose={onClose}
      actions={
        <Button variant="text" onClick={onClose}>
          Leave it as it is
        </Button>
      }
    >
      {choices.isError && <Box role="alert">{sentence(choices.error)}</Box>}
      {choices.data?.length === 0 && <Box>Finish the readings first; then the choices can be weighed.</Box>}
      {choices.data && choices.data.length > 0 && (
        <Box sx={{ overflowX: "auto" }}>
          <Box
            component="table"
            sx={{
              borderCollapse: "collapse",
              width: "100%",
              minWidth: 720,
              tableLayout: "fixed",
              "& th, & td": {
                textAlign: "left",
                verticalAlign: "top",
                p: 1,
                borderBottom: "1px solid var(--rule)",
                overflowWrap: "anywhere",
              },
              "& tbody th": { color: "var(--second)", fontWeight: 400, width: 130 },
            }}
          >
            <colgroup>
              <col style={{ width: 130 }} />
            </colgroup>
            <thead>
              <tr>
                <td />
                {choices.data.map((row) => (
                  <Box
                    component="th"
                    key={row.choice.material}
                    scope="col"
                    sx={{ background: row.choice.present ? "var(--hand)" : "none" }}
                  >
                    <Box sx={{ font: `600 20px ${condensed}` }}>{row.choice.material_name}</Box>
                    <Box sx={{ fontWeight: 400, color: "var(--second)" }}>
                      {row.choice.size} × {row.choice.wall_mm} mm
                      {row.choice.present && ", as chosen now"}
                      {row.choice.school && ", this shop’s way"}
                    </Box>
                    {!row.choice.present && (
                      <Button
                        size="small"
                        sx={{ mt: 0.5 }}
                        onClick={() => takeOne(row)}
                        aria-label={`Take ${row.choice.material_name}`}
                      >
                        Take this
                      </Button>
                    )}
                  </Box>
                ))}
              </tr>
            </thead>
            <tbody>
              {ROWS.map(({ name, of }) => (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  {choices.data.map((row) => (
                    <Box
                      component="td"
                      key={row.choice.material}
                      sx={{ background: row.choice.present ? "var(--hand)" : "none" }}
                    >
                      {of(row)}
                    </Box>
                  ))}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
    </Dialog>
  );
}

function Rules({ choice }: { choice: PricedChoice["choice"] }) {
  return (
    <>
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", fontWeight: 600 }}>
        {choice.verdict && (
          <VerdictMark
            verdict={choice.worst === "stop" ? "refused" : choice.worst === "caution" ? "caution" : choice.verdict}
          />
        )}
        {RULES[choice.worst ?? "note"]}
      </Box>
      {choice.against.map((title) => (
        <Box key={title} sx={{ fontSize: 14, color: "var(--second)" }}>
          {title}
        </Box>
      ))}
    </>
  );
}
