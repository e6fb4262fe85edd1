import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { AtPosition, Catalogue, HoseSpan, HoseStudy, Line, Unit } from "../../../api/types";
import { sayAngle, sayLength, sayTurn } from "../../../format/units";
import { Columns } from "../../../ui/Columns";
import { HowMade } from "./HowMade";
import { sheetOf } from "../../../workspace/sheet";
import { HosePicture } from "./HosePicture";
import { homeOf } from "./projected";

interface Props {
  study: HoseStudy;
  document: Line;
  piece: HoseSpan;
  catalogue: Catalogue;
  lineId: string;
  onDone: (done: string[]) => void;
}

const DO = { hold: "Hold", free: "Leave free", sleeve: "Sleeve", away: "Keep off" } as const;

/** How the hose lies, what it does over its travel, where it is held, and how it is made. */
export function WayStudy({ study, document, piece, catalogue, lineId, onDone }: Props) {
  const { unit } = document;
  const row = catalogue.hoses.find((one) => one.id === piece.hose);
  if (!row) return null;
  return (
    <Columns>
      <Box aria-live="polite">
        {study.laid ? (
          <Lying study={study} laid={study.laid} unit={unit} od={row.od_mm} />
        ) : (
          <Box sx={{ mt: 2, color: "var(--second)" }}>
            Say by tape where both ends are and which way the hose leaves and arrives: then it is worked out how it lies
            and how long it may be.
          </Box>
        )}
      </Box>
      <HowMade
        assembly={study.assembly}
        unit={unit}
        done={piece.done}
        sheet={sheetOf(lineId, piece.id)}
        bench={`/lines/${lineId}/hose/${piece.id}`}
        onDone={onDone}
      />
    </Columns>
  );
}

interface LyingProps {
  study: HoseStudy;
  laid: NonNullable<HoseStudy["laid"]>;
  unit: Unit;
  od: number;
}

function Lying({ study, laid, unit, od }: LyingProps) {
  return (
    <Box component="section" aria-label="How it lies" sx={{ mt: 2 }}>
      <Typography variant="h2" component="h3">
        How it lies
      </Typography>
      {laid.length_mm == null ? (
        <Box sx={{ my: 1, color: "var(--second)" }}>Type or drag a length to see the hose.</Box>
      ) : (
        <Travel study={study} unit={unit} od={od} names={laid.move_names} />
      )}
      {laid.bows && (
        <Box sx={{ mt: 1, fontSize: 14, color: "var(--second)" }}>
          Flat only while neither end can turn in its seat: with a free end it bows out sideways, more gently than this.
        </Box>
      )}
      {study.supports.length > 0 && (
        <Box component="ul" aria-label="Where it is held" sx={{ listStyle: "none", m: 0, mt: 1, p: 0 }}>
          {study.supports.map((one) => (
            <Box
              component="li"
              key={`${one.kind} ${one.from_mm} ${one.text}`}
              sx={{
                display: "grid",
                gridTemplateColumns: "104px 1fr",
                gap: 1,
                py: 0.4,
                borderTop: "1px solid var(--rule)",
              }}
            >
              <Box sx={{ fontWeight: 600 }}>
                {DO[one.kind]}
                <Box sx={{ fontWeight: 400, fontSize: 14, color: "var(--second)" }}>
                  {sayLength(one.from_mm, unit)}
                  {one.to_mm - one.from_mm > 1 && ` to ${sayLength(one.to_mm, unit)}`}
                </Box>
              </Box>
              <Box>{one.text}</Box>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Travel({ study, unit, od, names }: { study: HoseStudy; unit: Unit; od: number; names: readonly string[] }) {
  const positions = study.positions;
  const [chosen, setChosen] = useState<number | null>(null);
  const at = Math.min(chosen ?? homeOf(positions), positions.length - 1);
  const here = positions[at];
  if (!here) return null;
  const moving = positions.length > 1;
  return (
    <Box sx={{ mt: 1 }}>
      <HosePicture study={study} at={at} od={od} />
      {moving && (
        <Box
          component="input"
          type="range"
          aria-label="Travel"
          aria-valuetext={goneOf(study, names, here, unit)}
          min={0}
          max={positions.length - 1}
          step={1}
          value={at}
          onChange={(event) => setChosen(Number(event.target.value))}
          sx={{
            width: "100%",
            accentColor: "var(--ink)",
            minHeight: 28,
            "@media (pointer: coarse)": { minHeight: 44 },
          }}
        />
      )}
      <Box sx={{ fontVariantNumeric: "tabular-nums" }}>
        {moving && <b>{goneOf(study, names, here, unit)}: </b>}
        {told(here, study.laid?.needs_mm ?? 0, unit)}
      </Box>
      {study.laid?.nearest.map((near) => (
        <Box
          key={near.item}
          sx={{ fontSize: 14, color: near.distance_mm < near.wanted_mm ? "var(--stop)" : "var(--second)" }}
        >
          {near.what || "Beside it"}:{" "}
          {near.distance_mm <= 0 ? "touched" : `${sayLength(near.distance_mm, unit)} away at the nearest`},{" "}
          {sayLength(near.at_mm, unit)} from end A; {sayLength(near.wanted_mm, unit)} wanted.
        </Box>
      ))}
    </Box>
  );
}

function goneOf(study: HoseStudy, names: readonly string[], at: AtPosition, unit: Unit): string {
  if (at.gone.every((far) => Math.abs(far) < 1e-9)) return "As it is fitted";
  return at.gone
    .map((far, k) => {
      const move = study.laid?.moves[k];
      const said = move && "axis" in move ? sayTurn(far) : `${far < 0 ? "−" : "+"}${sayLength(Math.abs(far), unit)}`;
      return `${names[k] ?? ""} ${said}`;
    })
    .join(", ");
}

function told(at: AtPosition, needs: number, unit: Unit): string {
  if (at.spare_mm < 0) return `too short by ${sayLength(-at.spare_mm, unit)}.`;
  if (at.radius_mm === 0) return "it kinks.";
  const radius =
    at.radius_mm == null
      ? "straight"
      : `radius ${sayLength(at.radius_mm, unit)} at ${sayLength(at.tightest_at_mm, unit)} from end A${at.radius_mm < needs ? ", too tight" : ""}`;
  const twist = Math.abs(at.twist_deg) > 0.5 ? `, twisted ${sayAngle(Math.abs(at.twist_deg))}` : "";
  return `${radius}, stands out ${sayLength(at.reach_mm, unit)}, ${sayLength(at.spare_mm, unit)} more than it must have${twist}.`;
}
