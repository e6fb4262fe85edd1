import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { sayDay } from "../../format/days";
import { sayLength } from "../../format/units";

const signed = (figure: number, said: string): string => `${figure > 0 ? "+" : "−"}${said}`;

/** All that came to an entry and went: what lies there is what it adds up to. */
export function StockBook({ id }: { id: string }) {
  const moves = useQuery({
    queryKey: ["stock", id, "moves"],
    queryFn: () => take(api.GET("/api/stock/{stock_id}/moves", { params: { path: { stock_id: id } } })),
  });
  return (
    <Box component="section" aria-label="What came and went" sx={{ mt: 2, fontSize: 15 }}>
      <Box component="h3" sx={{ m: 0, fontSize: 15, fontWeight: 600 }}>
        What came and went
      </Box>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", maxHeight: 150, overflowY: "auto" }}>
        {moves.data?.map((move, at) => (
          <Box
            component="li"
            key={at}
            sx={{ display: "flex", gap: 2, borderTop: "1px solid var(--rule)", py: 0.25, color: "var(--second)" }}
          >
            <Box sx={{ width: 110 }}>{sayDay(move.at.slice(0, 10))}</Box>
            <Box sx={{ flex: 1 }}>{move.kind}</Box>
            <Box>
              {[
                move.pieces !== 0 && signed(move.pieces, `${Math.abs(move.pieces)}`),
                move.mm !== 0 && signed(move.mm, sayLength(Math.abs(move.mm), "mm")),
              ]
                .filter(Boolean)
                .join(", ") || "as booked"}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
