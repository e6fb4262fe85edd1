import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, sentence, take } from "../../api/client";
import { condensed } from "../../theme/theme";
import { HowItStands } from "./HowItStands";
import { big } from "./sizes";
import type { MakingEditor } from "../../doc/useMaking";

/** All steps done: how it came out, and the time to the job. */
export function Finish({ editor, minutes, lineId }: { editor: MakingEditor; minutes: number; lineId: string }) {
  const { making, keep, end } = editor;
  const [problem, setProblem] = useState("");
  const navigate = useNavigate();
  const open = minutes - making.state.booked_minutes;
  const ended = making.ended_at !== null;
  const book = (account: "planned" | "own mistake") =>
    void take(
      api.POST("/api/jobs/{job_id}/bookings", {
        params: { path: { job_id: making.job_id } },
        body: { account, what: `Making ${making.document.name}`.slice(0, 120), minutes: open, material_cents: 0 },
      }),
    )
      .then(() => keep((state) => ({ ...state, booked_minutes: minutes })))
      .catch((error: unknown) => setProblem(sentence(error)));
  return (
    <Box component="section" aria-label="Finished">
      <Box component="h2" sx={{ m: 0, font: `600 56px/1.05 ${condensed}` }}>
        {ended ? (making.outcome === "good" ? "The part is good" : `Ended: ${making.outcome}`) : "All steps are done"}
      </Box>
      <HowItStands editor={editor} />
      {open > 0 && !ended && (
        <Box sx={{ mt: 3, display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "center" }}>
          <Box sx={{ fontSize: 24 }}>{open} min are not booked yet.</Box>
          <Button sx={big} onClick={() => book("planned")}>
            To the customer
          </Button>
          <Button sx={big} onClick={() => book("own mistake")}>
            Our own mistake
          </Button>
        </Box>
      )}
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", fontSize: 20 }}>
          {problem}
        </Box>
      )}
      {!ended && (
        <Box sx={{ mt: 3, display: "flex", gap: 1.5, flexWrap: "wrap" }}>
          <Button
            sx={{ ...big, flex: 1, minWidth: 220 }}
            variant="contained"
            color="secondary"
            onClick={() => void end("good")}
          >
            The part is good
          </Button>
          <Button sx={big} onClick={() => void end("scrap")}>
            Scrap: begin again
          </Button>
        </Box>
      )}
      {ended && (
        <Button
          sx={{ ...big, mt: 3 }}
          onClick={() => void navigate(`/lines/${lineId}/${making.outcome === "good" ? "fit" : "make"}`)}
        >
          {making.outcome === "good" ? "On to fitting" : "Back to the plan"}
        </Button>
      )}
    </Box>
  );
}
