import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Stock, StockDraft } from "../../api/types";
import { Bar } from "../../ui/Bar";
import { useNotice } from "../../ui/notice";
import { Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";
import { stockChanged } from "../../api/stockChanged";
import { StockBar } from "./StockBar";
import { StockForm } from "./StockForm";
import { useWouldTake } from "./useWouldTake";

const BLANK: StockDraft = {
  tube: "copper-nickel_3-16in_0.711",
  form: "stick",
  length: "",
  unit: "mm",
  count: 1,
  finished: "",
  note: "",
};

/** The longest straight piece of a tube: the bars beside it are drawn to its scale. */
const longestOf = (stock: readonly Stock[], tube: string): number =>
  Math.max(1, ...stock.filter((row) => row.tube === tube && row.form !== "coil").map((row) => row.length_mm));

/** Sticks, coils and labelled offcuts that lie in the shop. */
export default function StockPage() {
  const stock = useQuery({ queryKey: ["stock"], queryFn: () => take(api.GET("/api/stock")) });
  const catalogue = useCatalogue();
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: () => take(api.GET("/api/jobs")) });
  const [jobId, setJobId] = useState("");
  const { taken, said } = useWouldTake(jobId);
  const [draft, setDraft] = useState<{ id: string | null; version: number; draft: StockDraft } | null>(null);
  const client = useQueryClient();
  const notice = useNotice();
  const again = () => stockChanged(client);
  const fail = (error: unknown) => notice({ text: sentence(error) });
  const one = (id: string) => ({ params: { path: { stock_id: id } } });
  const remove = (row: Stock) =>
    void take(
      api.DELETE("/api/stock/{stock_id}", { params: { path: { stock_id: row.id }, query: { version: row.version } } }),
    )
      .then(again)
      .then(() =>
        notice({
          text: `${row.label} is taken out.`,
          undo: () =>
            void take(api.POST("/api/stock/{stock_id}/restore", one(row.id)))
              .then(again)
              .catch(fail),
        }),
      )
      .catch((error: unknown) => {
        fail(error);
        void again();
      });
  const tubes = [...new Set(stock.data?.map((row) => row.tube) ?? [])];
  const correct = (row: Stock) =>
    setDraft({
      id: row.id,
      version: row.version,
      draft: {
        tube: row.tube,
        form: row.form,
        length: String(Math.round(row.length_mm * 10) / 10),
        unit: "mm",
        count: row.count,
        finished: row.finished,
        note: row.note,
      },
    });
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Stock">
        <Button onClick={() => setDraft({ id: null, version: 0, draft: BLANK })}>Put in stock…</Button>
      </Bar>
      <Box component="main" sx={{ p: 2, maxWidth: 1100, mx: "auto" }}>
        {stock.isError && <Box role="alert">{sentence(stock.error)}</Box>}
        {stock.data?.length === 0 && (
          <Box sx={{ fontSize: 17, color: "var(--second)", py: 4 }}>
            Nothing lies here yet. Put in sticks, coils and offcuts; cut lists of jobs take from them and label what is
            left.
          </Box>
        )}
        {tubes.length > 0 && (
          <Box sx={{ maxWidth: 520, mb: 1.5 }}>
            <Pick
              label="Cut list of"
              value={jobId}
              options={[
                { id: "", name: "no job: only what lies here" },
                ...(jobs.data ?? []).map(({ id, name }) => ({ id, name })),
              ]}
              onChange={setJobId}
            />
            <Box role="status" sx={{ color: "var(--second)", fontSize: 15, minHeight: 22 }}>
              {said}
            </Box>
          </Box>
        )}
        {tubes.map((tube) => (
          <Box
            component="section"
            key={tube}
            aria-label={stock.data?.find((row) => row.tube === tube)?.tube_name ?? tube}
            sx={{ mb: 3 }}
          >
            <Box component="h2" sx={{ m: 0, font: `600 20px ${condensed}`, borderBottom: "2px solid var(--ink)" }}>
              {stock.data?.find((row) => row.tube === tube)?.tube_name}
            </Box>
            {stock.data
              ?.filter((row) => row.tube === tube)
              .map((row) => (
                <Box
                  key={row.id}
                  data-stock={row.label}
                  sx={{
                    display: "grid",
                    gridTemplateColumns: "56px 70px 150px minmax(90px, 1fr) auto",
                    "& [role=img]": { gridColumn: "1 / -1" },
                    columnGap: 1.5,
                    alignItems: "center",
                    borderBottom: "1px solid var(--rule)",
                    minHeight: 48,
                    py: 0.5,
                    "@media (max-width: 720px)": { gridTemplateColumns: "48px 1fr 1fr" },
                  }}
                >
                  <Box sx={{ font: `600 20px ${condensed}` }}>{row.label}</Box>
                  <Box>{row.form}</Box>
                  <Box sx={{ font: `600 18px ${condensed}`, whiteSpace: "nowrap" }}>
                    {row.count > 1 && `${row.count} × `}
                    {sayLength(row.length_mm, "mm")} · {sayLength(row.length_mm, "in")}
                  </Box>
                  <Box sx={{ color: "var(--second)", overflowWrap: "anywhere" }}>
                    {[row.finished, row.note].filter(Boolean).join(" · ")}
                  </Box>
                  <Box sx={{ display: "flex", gap: 0.5, justifyContent: "end" }}>
                    <Button
                      size="small"
                      href={`/api/stock/${row.id}/label.pdf`}
                      target="_blank"
                      rel="noopener"
                      aria-label={`Label of ${row.label}`}
                    >
                      Label
                    </Button>
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Correct ${row.label}`}
                      onClick={() => correct(row)}
                    >
                      Correct
                    </Button>
                    <Button
                      size="small"
                      variant="text"
                      aria-label={`Take out ${row.label}`}
                      onClick={() => remove(row)}
                      sx={{ minWidth: 36 }}
                    >
                      ✕
                    </Button>
                  </Box>
                  <StockBar row={row} longest={longestOf(stock.data, tube)} taken={taken.get(row.id) ?? []} />
                </Box>
              ))}
          </Box>
        ))}
      </Box>
      {draft && catalogue && (
        <StockForm catalogue={catalogue} first={draft} onClose={() => setDraft(null)} onKept={again} />
      )}
    </>
  );
}
