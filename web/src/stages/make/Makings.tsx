import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, take } from "../../api/client";
import { minutesOf } from "../../doc/spells";
import { differences } from "../../doc/differ";
import { sayDayOf } from "../../format/days";
import type { Making } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import { FitHere } from "./FitHere";
import { useNotice } from "../../ui/notice";
import { sentence } from "../../api/client";

/** Every bend of it is made. */
const finished = (making: Making) => {
  const span = making.document.spans.find((item) => item.id === making.span);
  const made = making.state.made.length;
  return (
    made > 0 && span?.kind === "rigid" && made >= span.readings.rows.length - (span.readings.kind === "corners" ? 2 : 0)
  );
};

/** Bench mode for this line: begun, gone on with, and what was made before. */
export function Makings({ editor, ready }: { editor: LineEditor; ready: boolean }) {
  const lineId = editor.opened.id;
  const navigate = useNavigate();
  const notice = useNotice();
  const query = useQuery({
    queryKey: ["makings", lineId],
    queryFn: () => take(api.GET("/api/lines/{line_id}/makings", { params: { path: { line_id: lineId } } })),
    gcTime: 0,
  });
  const mine = query.data?.filter((making) => making.span === editor.tube) ?? [];
  const open = mine.find((making) => !making.ended_at);
  const ended = mine.filter((making) => making.ended_at);
  const changed = open !== undefined && differences(open.document, editor.document).length > 0;
  const anew = () =>
    void (
      open
        ? take(
            api.POST("/api/makings/{making_id}/end", {
              params: { path: { making_id: open.id } },
              body: { outcome: "given up" },
            }),
          )
        : Promise.resolve(undefined)
    )
      .then(() => navigate(`/lines/${lineId}/bench?tube=${editor.tube}`))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  return (
    <Box component="section" aria-label="Bench mode">
      <Button
        fullWidth
        variant="contained"
        color="secondary"
        size="large"
        disabled={!ready}
        onClick={() => void navigate(`/lines/${lineId}/bench?tube=${editor.tube}`)}
        sx={{ minHeight: 56, fontSize: 20 }}
      >
        {open ? "Go on at the bench" : "To the bench"}
      </Button>
      {open && (
        <Box sx={{ mt: 0.5, color: "var(--second)" }}>
          Begun {sayDayOf(open.at)}, {open.state.made.length === 1 ? "1 bend" : `${open.state.made.length} bends`} made,{" "}
          {minutesOf(open.state, Date.now())} min.
          {changed && (
            <Box role="note" sx={{ color: "var(--caution)" }}>
              The line was changed since: the bench goes on with the plan it was begun with.{" "}
              <Button size="small" onClick={anew}>
                Begin again with this plan
              </Button>
            </Box>
          )}
        </Box>
      )}
      {open && finished(open) && <FitHere lineId={lineId} span={editor.tube} />}
      {ended.length > 0 && (
        <Box sx={{ mt: 1 }}>
          <Typography variant="h2">Made before</Typography>
          {ended.map((making) => (
            <Box
              key={making.id}
              sx={{ display: "flex", justifyContent: "space-between", py: 0.5, borderBottom: "1px solid var(--rule)" }}
            >
              <span>{making.ended_at && sayDayOf(making.ended_at, true)}</span>
              <span>{making.outcome || "ended"}</span>
              <span>{minutesOf(making.state, Date.now())} min</span>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
