import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Popover from "@mui/material/Popover";
import { useState } from "react";
import { Segments } from "../ui/Segments";
import type { Link } from "./useInstruments";
import { NAMES, useInstruments } from "./useInstruments";

const WORDS: Record<Link, string> = {
  on: "on",
  off: "off",
  lost: "connection lost",
  "no answer": "Bendrel does not answer",
};

/** Which instruments are heard, how they stand, and what they last said. */
export function InstrumentButton() {
  const { listening, listen, all } = useInstruments();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const links = Object.values(all).map((item) => item.link);
  const bad = links.some((link) => link === "lost" || link === "no answer");
  const on = links.filter((link) => link === "on").length;
  return (
    <>
      <Button
        size="small"
        variant="text"
        aria-haspopup="dialog"
        onMouseDown={(event) => event.preventDefault()}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ minWidth: 44, color: bad ? "var(--caution)" : "var(--ink)" }}
      >
        Gauges{listening ? (bad ? " lost" : ` ${on} on`) : ""}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{
          paper: {
            sx: { boxShadow: "none", border: "1.5px solid var(--ink)", backgroundImage: "none", p: 2, width: 320 },
            "aria-label": "Gauges",
            role: "dialog",
          } as object,
        }}
      >
        <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", mb: 1 }}>
          Readings drop into the field in hand
          <Segments
            label="Listen to the gauges"
            value={listening ? "on" : "off"}
            options={[
              { value: "off", text: "off" },
              { value: "on", text: "on" },
            ]}
            onChange={(value) => listen(value === "on")}
          />
        </Box>
        {(Object.keys(NAMES) as (keyof typeof NAMES)[]).map((kind) => {
          const item = all[kind];
          const wrong = item.link === "lost" || item.link === "no answer";
          return (
            <Box
              key={kind}
              data-instrument={kind}
              data-link={item.link}
              sx={{ display: "grid", gridTemplateColumns: "110px 1fr", borderTop: "1px solid var(--rule)", py: 0.75 }}
            >
              <Box>{NAMES[kind]}</Box>
              <Box>
                <Box sx={{ color: wrong ? "var(--caution)" : "var(--second)", fontWeight: wrong ? 600 : 400 }}>
                  {WORDS[item.link]}
                </Box>
                {item.last && <Box>last: {item.last}</Box>}
                {item.trouble && <Box sx={{ color: "var(--caution)" }}>{item.trouble}</Box>}
              </Box>
            </Box>
          );
        })}
        <Box sx={{ mt: 1, "& a": { color: "var(--ink)" } }}>
          <a href="/standins" target="_blank" rel="noopener">
            Simulated gauges, for trying it out
          </a>
        </Box>
      </Popover>
    </>
  );
}
