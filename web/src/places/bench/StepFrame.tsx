import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useLayoutEffect } from "react";
import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { condensed } from "../../theme/theme";
import { BenchHead } from "./BenchHead";
import { big } from "./sizes";

export const headline = { m: 0, mt: 1, font: `600 clamp(30px, 4.6vw, 52px)/1.15 ${condensed}` } as const;

interface Props {
  title: string;
  /** Where the bench was entered from. */
  back: string;
  /** Keeps what was noted before the workspace reads the line again. */
  flush: () => Promise<void>;
  index: number;
  count: number;
  go: (to: number) => void;
  /** What the large button does, and its word; null where the step has buttons of its own. */
  turn: { word: string; act: () => void } | null;
  /** The same for all steps of its kind; null where it stands alone. */
  all?: { word: string; act: () => void } | null;
  children: ReactNode;
}

/** One step a screen: a thumb or one hand on the keys does it (Enter), walks (arrows) and leaves (Esc). */
export function StepFrame({ title, back, flush, index, count, go, turn, all = null, children }: Props) {
  const navigate = useNavigate();
  const leave = () => void flush().then(() => navigate(back));
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || target.closest("input, select")) return;
      if (event.key === "Escape") leave();
      else if (event.key === "ArrowRight") go(index + 1);
      else if (event.key === "ArrowLeft") go(index - 1);
      else if (event.key === "Enter" && turn && !target.closest("button, a")) turn.act();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  return (
    <Box
      sx={{
        height: "100dvh",
        display: "grid",
        gridTemplateRows: "auto minmax(0, 1fr) auto",
        background: "var(--paper)",
      }}
    >
      <BenchHead
        title={title}
        leave={
          <Link
            to={back}
            onClick={(event) => {
              event.preventDefault();
              leave();
            }}
          >
            Leave the bench
          </Link>
        }
      />
      <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 1180, width: "100%", mx: "auto", overflow: "auto" }}>
        {children}
      </Box>
      <Box
        component="footer"
        sx={{ display: "flex", gap: 1.5, p: 1.5, borderTop: "2px solid var(--ink)", flexWrap: "wrap" }}
      >
        <Button sx={big} onClick={() => go(index - 1)} disabled={index === 0}>
          Back
        </Button>
        {turn ? (
          <Button sx={{ ...big, flex: 1, minWidth: 200 }} variant="contained" color="secondary" onClick={turn.act}>
            {turn.word}
          </Button>
        ) : (
          <Box sx={{ flex: 1 }} />
        )}
        {all && (
          <Button sx={big} onClick={all.act}>
            {all.word}
          </Button>
        )}
        <Button sx={big} onClick={() => go(index + 1)} disabled={index >= count}>
          Next
        </Button>
      </Box>
    </Box>
  );
}
