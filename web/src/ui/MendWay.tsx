import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { Line, MendMethod, MendOffer, VerdictWord } from "../api/types";
import { sayLength } from "../format/units";
import { condensed } from "../theme/theme";
import { VerdictMark } from "./VerdictMark";
import { SourceLine } from "./Working";

const MARKS: Record<MendOffer["verdict"], VerdictWord> = {
  right: "right",
  acceptable: "acceptable",
  care: "caution",
  refused: "refused",
};

const THERE = { fits: "fits", "does not fit": "does not fit", "measure first": "measure the room first" } as const;

interface WayProps {
  offer: MendOffer;
  way: MendMethod | undefined;
  unit: Line["unit"];
  open: boolean;
  onOpen: () => void;
  /** What is said of it beside its name. */
  told: string;
  /** Whatever else is known of it, opened. */
  children?: ReactNode;
}

/** One way: its word, what the new piece is, and, opened, every term of it. */
export function MendWay({ offer, way, unit, open, onOpen, told, children }: WayProps) {
  return (
    <Box
      component="li"
      data-way={offer.method}
      data-verdict={offer.verdict}
      sx={{ borderTop: "1px solid var(--rule)" }}
    >
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1,
          width: "100%",
          minHeight: 40,
          p: 0,
          border: 0,
          background: "none",
          color: "var(--ink)",
          textAlign: "left",
          font: `600 17px ${condensed}`,
          cursor: "pointer",
          "@media (pointer: coarse)": { minHeight: 44 },
        }}
      >
        <VerdictMark verdict={MARKS[offer.verdict]} />
        <Box component="span" sx={{ flex: 1 }}>
          {offer.name}
        </Box>
        <Box component="span" sx={{ fontWeight: 400, color: "var(--second)", whiteSpace: "nowrap" }}>
          {offer.verdict === "refused" ? "refused" : told}
        </Box>
      </Box>
      {open && (
        <Box sx={{ pb: 1, pl: 3.25 }}>
          <Terms offer={offer} way={way} unit={unit} />
          {offer.reasons.map((reason) => (
            <Box key={reason.text} sx={{ mt: 0.75 }}>
              {reason.text}
              <SourceLine source={reason.source} />
            </Box>
          ))}
          {offer.working.map((working) => (
            <Box
              key={working.formula}
              data-working="splice"
              sx={{ mt: 0.75, borderLeft: "3px solid var(--rule)", pl: 1 }}
            >
              <Box sx={{ fontWeight: 500 }}>{working.formula}</Box>
              {working.inputs.map((input) => (
                <Pair key={input.name} name={input.name} value={input.value} />
              ))}
              <Pair name="new piece" value={working.result} strong />
            </Box>
          ))}
          {offer.verdict !== "refused" && offer.tools.length > 0 && (
            <Box data-tools sx={{ mt: 0.75 }}>
              {offer.tools.map((tool) => (
                <Box key={tool.what} data-there={tool.fits}>
                  <Box component="span" sx={{ fontWeight: 500 }}>
                    {tool.what}
                  </Box>
                  , {THERE[tool.fits]}:{" "}
                  <Box component="span" sx={{ color: "var(--second)" }}>
                    {tool.why}
                  </Box>
                </Box>
              ))}
            </Box>
          )}
          {offer.verdict !== "refused" && offer.cost.length > 0 && (
            <Box data-cost sx={{ mt: 0.75 }}>
              {offer.cost.map((term) => (
                <Pair key={term.name} name={`${term.name} (${term.words})`} value={`${Math.round(term.minutes)} min`} />
              ))}
            </Box>
          )}
          {children}
        </Box>
      )}
    </Box>
  );
}

function Terms({ offer, way, unit }: Pick<WayProps, "offer" | "way" | "unit">) {
  const said: [string, string][] = [];
  const length = (name: string, mm: number | null | undefined) => {
    if (mm != null) said.push([name, sayLength(mm, unit)]);
  };
  length("cut, A side, from A", offer.cut_a_mm);
  length("cut, B side, from A", offer.cut_b_mm);
  length("gap", offer.gap_mm);
  length(offer.method === "hose" ? "hose" : "new piece, end to end", offer.piece_mm);
  if (offer.piece_bends.length > 0) said.push(["its bends", offer.piece_bends.join(", ")]);
  length(offer.method === "hose" ? "overlap at each end" : "left long, to be trimmed there", offer.overlap_mm);
  length("the old ends spring apart by", offer.spring_apart_mm);
  if (way && offer.cut_a_mm != null && way.room > 0) {
    length("straight it needs beside a cut", way.room);
    length("room to swing a wrench", way.swing);
  }
  return (
    <>
      {said.map(([name, value]) => (
        <Pair key={name} name={name} value={value} />
      ))}
    </>
  );
}

function Pair({ name, value, strong = false }: { name: string; value: string; strong?: boolean }) {
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
      <Box component="span" sx={{ color: "var(--second)" }}>
        {name}
      </Box>
      <Box component="span" sx={{ fontWeight: strong ? 600 : 500, textAlign: "right" }}>
        {value}
      </Box>
    </Box>
  );
}
