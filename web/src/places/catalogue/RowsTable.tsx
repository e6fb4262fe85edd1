import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Held } from "../../api/types";
import { sayMetres, sayMoney } from "../../format/amounts";
import { condensed } from "../../theme/theme";
import { HoldDialog } from "./HoldDialog";
import type { Row, Table } from "./tables";
import { matches } from "./tables";
import { useHoldings } from "./useHoldings";

const MOST = 200;

/** One part of the catalogue: its rows, where each comes from, and what the shop has of it. */
export function RowsTable({ table, wanted }: { table: Table; wanted: string }) {
  const holdings = useHoldings();
  const [holding, setHolding] = useState<Row | null>(null);
  const found = table.rows.filter((row) => matches(row, wanted));
  const bought = table.rows.some((row) => row.ref);
  return (
    <>
      <Box sx={{ color: "var(--second)", mb: 0.5 }} role="status">
        {found.length === table.rows.length ? `${found.length} rows` : `${found.length} of ${table.rows.length} rows`}
        {found.length > MOST && `, the first ${MOST} shown: search for fewer`}
      </Box>
      <Box sx={{ overflowX: "auto" }}>
        <Box
          component="table"
          sx={{
            borderCollapse: "collapse",
            width: "100%",
            "& th, & td": {
              textAlign: "left",
              verticalAlign: "top",
              py: 0.6,
              pr: 2,
              borderBottom: "1px solid var(--rule)",
            },
            "& thead th": {
              font: `600 16px ${condensed}`,
              color: "var(--second)",
              borderBottom: "1.5px solid var(--ink)",
            },
          }}
        >
          <thead>
            <tr>
              {table.columns.map((name) => (
                <th key={name} scope="col">
                  {name}
                </th>
              ))}
              <th scope="col">source</th>
              {bought && <th scope="col">in stock, price</th>}
            </tr>
          </thead>
          <tbody>
            {found.slice(0, MOST).map((row) => (
              <tr key={row.id} data-row={row.id}>
                {row.cells.map((cell, k) => (
                  <Box
                    component="td"
                    key={k}
                    sx={{ fontWeight: k === 0 ? 600 : 400, whiteSpace: cell.length < 15 ? "nowrap" : "normal" }}
                  >
                    {cell}
                  </Box>
                ))}
                <Box
                  component="td"
                  sx={{
                    fontSize: 14,
                    color: row.source.kind === "shop's own" ? "var(--ink)" : "var(--second)",
                    fontWeight: row.source.kind === "shop's own" ? 600 : 400,
                  }}
                >
                  {row.source.kind}: {row.source.text}
                </Box>
                {bought && (
                  <td>
                    {row.ref && (
                      <Button
                        size="small"
                        variant="text"
                        disabled={!holdings}
                        aria-label={`${says(holdings, row.ref, row)}: stock and price of ${row.cells.join(" ")}`}
                        onClick={() => setHolding(row)}
                        sx={{ px: 0, justifyContent: "start", textAlign: "left", whiteSpace: "nowrap" }}
                      >
                        {says(holdings, row.ref, row)}
                      </Button>
                    )}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      {found.length === 0 && <Box sx={{ py: 2 }}>Nothing of that here. {wanted && "Try fewer words."}</Box>}
      {holding?.ref && holdings && (
        <HoldDialog
          row={holding}
          reference={holding.ref}
          held={holdings.get(holding.ref)}
          onClose={() => setHolding(null)}
        />
      )}
    </>
  );
}

function says(holdings: Map<string, Held> | null, reference: string, row: Row): string {
  // what is kept is kept over what was read: before that nothing can be set
  if (!holdings) return "…";
  const held = holdings.get(reference);
  if (!held) return "set…";
  const have = held.have;
  const amount = row.per === "metre" ? sayMetres(have) : row.per === "litre" ? `${have} L` : `${have} ×`;
  return held.unit_cents == null ? amount : `${amount}, ${sayMoney(held.unit_cents)} a ${row.per}`;
}
