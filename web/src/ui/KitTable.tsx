import Box from "@mui/material/Box";
import type { KitList, Unit } from "../api/types";
import { sayMoney } from "../format/amounts";
import { condensed } from "../theme/theme";
import { sayLength } from "../format/units";
import { LongList } from "./LongList";

type Row = KitList["rows"][number];

export function sayAmount(amount: number, measure: Row["need"]["unit"], unit: Unit): string {
  if (measure === "mm") return sayLength(amount, unit);
  return measure === "l" ? `${Number(amount.toFixed(2))} L` : `${amount} ×`;
}

/** What is needed, what of it is in stock, and what it costs. */
export function KitTable({ list, unit, roomy = false }: { list: KitList; unit: Unit; roomy?: boolean }) {
  return (
    <Box>
      {!list.supplier_answers && (
        <Box role="status" sx={{ color: "var(--caution)", mb: 0.5 }}>
          The supplier does not answer; only the shop’s own prices are here.
        </Box>
      )}
      {list.rows.length === 0 && <Box sx={{ color: "var(--second)" }}>Nothing yet.</Box>}
      <LongList
        rows={list.rows}
        row={(row, k) => (
          <Box
            key={`${row.need.ref} ${k}`}
            data-need={row.need.ref}
            sx={{
              display: "grid",
              gridTemplateColumns: roomy ? "110px 1fr 220px 90px" : "84px 1fr 64px",
              columnGap: 1,
              py: 0.5,
              borderTop: "1px solid var(--rule)",
              alignItems: "baseline",
              "@media (max-width: 720px)": { gridTemplateColumns: "84px 1fr 64px" },
            }}
          >
            <Box sx={{ font: `600 17px ${condensed}`, whiteSpace: "nowrap" }}>
              {sayAmount(row.need.amount, row.need.unit, unit)}
            </Box>
            <Box sx={{ minWidth: 0, overflowWrap: "anywhere" }}>
              {row.need.what}
              {!roomy && <Stock row={row} unit={unit} why={row.need.why} />}
            </Box>
            {roomy && <Stock row={row} unit={unit} why={row.need.why} />}
            <Box
              sx={{ textAlign: "right", whiteSpace: "nowrap" }}
              title={row.own_price ? "the shop’s own price" : "the supplier’s price"}
            >
              {row.cents == null ? "–" : sayMoney(row.cents)}
            </Box>
          </Box>
        )}
      />
      {list.rows.length > 0 && (
        <Box
          sx={{
            display: "flex",
            justifyContent: "space-between",
            borderTop: "1.5px solid var(--ink)",
            pt: 0.5,
            font: `600 19px ${condensed}`,
          }}
        >
          <span>{list.unpriced > 0 ? `together, ${list.unpriced} without a price` : "together"}</span>
          <span data-total="kit">{sayMoney(list.total_cents)}</span>
        </Box>
      )}
    </Box>
  );
}

function Stock({ row, unit, why }: { row: Row; unit: Unit; why: string }) {
  const short = row.short > 0;
  return (
    <Box sx={{ fontSize: 14, color: "var(--second)" }}>
      {why}
      {row.have > 0 && ` · ${sayAmount(row.have, row.need.unit, unit)} in stock`}
      {row.have > 0 && short && `, ${sayAmount(row.short, row.need.unit, unit)} short`}
    </Box>
  );
}
