import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { LineSummary } from "../../api/types";

/** What is next on this job: one press from the page's first. */
export function NextUp({ lines }: { lines: readonly LineSummary[] }) {
  // they come in the order of what happens next
  const next = lines.find((line) => !line.done && !line.unreadable && line.next_step);
  const on = useRef<HTMLAnchorElement>(null);
  const id = next?.id;
  useEffect(() => on.current?.focus({ preventScroll: true }), [id]);
  if (!next) return null;
  return (
    <Box
      component="section"
      aria-label="What is next"
      sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap", my: 1.5 }}
    >
      <Button component={Link} to={`/lines/${next.id}`} variant="contained" color="secondary" ref={on}>
        Go on with {next.name}
      </Button>
      <Box sx={{ overflowWrap: "anywhere" }}>
        {next.next_step}
        {next.urgency === "off the road" && (
          <Box component="span" sx={{ color: "var(--stop)", fontWeight: 600 }}>
            {" "}
            · off the road
          </Box>
        )}
      </Box>
    </Box>
  );
}
