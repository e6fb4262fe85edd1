import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, sentence, take } from "../../api/client";
import { useNotice } from "../../ui/notice";

const KEY = ["set-aside"];

/** Rows of the data that could not be read at the start: each said once, with what was kept of it. */
export default function SetAside() {
  const found = useQuery({ queryKey: KEY, queryFn: () => take(api.GET("/api/backups/set-aside")) });
  const client = useQueryClient();
  const notice = useNotice();
  if (!found.data?.length) return null;
  const seen = (id: number) =>
    take(api.POST("/api/backups/set-aside/{row_id}/seen", { params: { path: { row_id: id } } }))
      .then(() => client.invalidateQueries({ queryKey: KEY }))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  return (
    <Box component="section" role="alert" aria-label="Could not be read" sx={{ mb: 2 }}>
      <Box sx={{ color: "var(--stop)", fontWeight: 600 }}>
        Something in the data could not be read. Everything else is here; a backup from before may have it still.
      </Box>
      {found.data.map((row) => (
        <Box key={row.id} sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "baseline" }}>
          <Box component="details" sx={{ flex: "1 1 320px", minWidth: 0 }}>
            <summary>{row.said}</summary>
            <Box sx={{ fontFamily: "monospace", fontSize: 14, overflowWrap: "anywhere", color: "var(--second)" }}>
              As it was kept: {row.kept}
            </Box>
          </Box>
          <Button variant="text" onClick={() => void seen(row.id)}>
            Looked at
          </Button>
        </Box>
      ))}
    </Box>
  );
}
