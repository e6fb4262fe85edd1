import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { api, take } from "../../api/client";
import { useAsked } from "../../doc/useAsked";
import type { Line } from "../../api/types";
import { useSelection } from "../../doc/select";
import { condensed } from "../../theme/theme";
import { SwingDrawing } from "./SwingDrawing";

/** One bend at the tool: the tube as it swings, with a slider, and what it runs into. */
export default function SwingStage({ document: line, tube, move }: { document: Line; tube: string; move: number }) {
  const [at, setAt] = useState(0);
  const { showSwing } = useSelection();
  const { answer: view, problem } = useAsked(["swing", line, tube, move], (signal) =>
    take(api.POST("/api/bench/swing", { body: { document: line, span: tube, move }, signal })),
  );
  useEffect(() => {
    if (!view) return;
    const { hit_deg: hit, standings } = view;
    const met = standings.findIndex((standing) => standing.deg >= (hit ?? Infinity) - 1e-6);
    setAt(hit == null ? standings.length - 1 : Math.max(0, met));
  }, [view]);
  const standing = view?.standings[Math.min(at, view.standings.length - 1)];
  return (
    <Box
      sx={{
        height: "100%",
        minHeight: 260,
        display: "grid",
        gridTemplateRows: "auto minmax(0, 1fr) auto",
        p: 1.5,
        gap: 1,
      }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center", gap: 1 }}>
        <Box sx={{ font: `600 20px ${condensed}` }}>
          {view ? `Move ${move}: bend ${view.bend}, end ${view.held} in the clamp` : "The swing"}
        </Box>
        <Button size="small" onClick={() => showSwing(null)}>
          The finished line
        </Button>
      </Box>
      <Box sx={{ minHeight: 0 }}>{view && standing && <SwingDrawing view={view} standing={standing} />}</Box>
      {problem && <Box role="alert">{problem}</Box>}
      {view && standing && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
          <Box component="label" htmlFor="swing" sx={{ color: "var(--second)" }}>
            Swing
          </Box>
          <Box
            component="input"
            id="swing"
            type="range"
            min={0}
            max={view.standings.length - 1}
            value={Math.min(at, view.standings.length - 1)}
            aria-valuetext={`${Math.round(standing.deg)} degrees`}
            onChange={(event) => setAt(Number(event.target.value))}
            sx={{ flex: 1, minHeight: 44, accentColor: "var(--action)" }}
          />
          <Box sx={{ font: `600 22px ${condensed}`, minWidth: 56, textAlign: "right" }}>
            {Math.round(standing.deg)}°
          </Box>
        </Box>
      )}
      {view && (
        <Box
          role={view.hit ? "alert" : undefined}
          sx={{ color: view.hit ? "var(--stop)" : "var(--good)", fontWeight: 600, fontSize: 15 }}
        >
          {view.hit ? `${view.hit.charAt(0).toUpperCase()}${view.hit.slice(1)}.` : "Nothing in the way."}
        </Box>
      )}
    </Box>
  );
}
