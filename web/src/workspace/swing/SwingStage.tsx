import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Line, SwingView } from "../../api/types";
import { useSelection } from "../../doc/select";
import { condensed } from "../../theme/theme";
import { SwingDrawing } from "./SwingDrawing";

/** One bend at the tool: the tube as it swings, with a slider, and what it runs into. */
export default function SwingStage({ document: line, tube, move }: { document: Line; tube: string; move: number }) {
  const [view, setView] = useState<SwingView | null>(null);
  const [problem, setProblem] = useState("");
  const [at, setAt] = useState(0);
  const { showSwing } = useSelection();
  useEffect(() => {
    const gone = new AbortController();
    take(api.POST("/api/bench/swing", { body: { document: line, span: tube, move }, signal: gone.signal }))
      .then((told) => {
        if (gone.signal.aborted) return;
        setView(told);
        setProblem("");
        const hit = told.hit_deg ?? null;
        const last = told.standings.length - 1;
        setAt(
          hit === null
            ? last
            : Math.max(
                0,
                told.standings.findIndex((standing) => standing.deg >= hit - 1e-6),
              ),
        );
      })
      .catch((error: unknown) => {
        if (gone.signal.aborted) return;
        setView(null);
        setProblem(sentence(error));
      });
    return () => {
      gone.abort();
    };
  }, [line, move, tube]);
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
