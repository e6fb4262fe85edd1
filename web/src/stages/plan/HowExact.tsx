import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { spanOf, typed, withSpan } from "../../doc/rows";
import { condensed } from "../../theme/theme";
import { sayAngle, sayLength } from "../../format/units";
import type { Exactness, RigidSpan, Unit, WayGain } from "../../api/types";

interface Props {
  view: PlanView;
  editor: LineEditor;
  unit: Unit;
}

/** How often the end that is not held drops into its port, what matters most, and what would make it more exact. */
export function HowExact({ view, editor, unit }: Props) {
  const { bench, part } = view;
  const { bend: chosen, choose } = useSelection();
  if (!bench || !part || part.bends.length === 0) return null;
  const { exact } = bench;
  const far = part.held_end === "A" ? "B" : "A";
  const flattest = bench.sections.reduce(
    (most, section, k) => ((section?.flat ?? 0) > (bench.sections[most]?.flat ?? 0) ? k : most),
    0,
  );
  const shown = chosen === null ? flattest : chosen - 1;
  const section = bench.sections[shown];
  const rows = [
    { name: "Made as told", shares: exact.made },
    { name: "Each bend read, the rest re-planned", shares: exact.read },
    { name: "And fitted in rounds at the ports", shares: exact.fitted },
  ];
  return (
    <Box component="section" aria-label="How exact" sx={{ mt: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        How exact
      </Typography>
      <Box component="table" sx={{ width: "100%", borderCollapse: "collapse", "& td, & th": { py: 0.5 } }}>
        <thead>
          <Box component="tr" sx={{ fontSize: 14, color: "var(--second)", verticalAlign: "bottom" }}>
            <Box component="th" sx={{ textAlign: "left", fontWeight: 400 }}>
              Of such parts, end {far} lands within
            </Box>
            {[exact.close, exact.zone].map((zone, k) => (
              <Box component="th" key={k} sx={{ textAlign: "right", fontWeight: 400, pl: 1, width: 84 }}>
                {sayLength(zone.mm, unit)}, {sayAngle(zone.deg)}
              </Box>
            ))}
          </Box>
        </thead>
        <tbody>
          {rows.map(({ name, shares }) => (
            <Box component="tr" key={name} sx={{ borderTop: "1px solid var(--rule)" }}>
              <td>{name}</td>
              <Share of={shares.close} />
              <Share of={shares.hand} />
            </Box>
          ))}
        </tbody>
      </Box>
      <Box data-inline sx={{ mt: 0.75, color: "var(--second)", fontSize: 15 }}>
        As told, half miss by more than {sayLength(exact.half_mm, unit)}, one in twenty by{" "}
        {sayLength(exact.most_mm, unit)}.{" "}
        {exact.worst != null && exact.worst_share >= exact.tool_share && (
          <>
            <Box
              component="button"
              onClick={() => choose(exact.worst ?? null)}
              sx={{
                all: "unset",
                cursor: "pointer",
                borderBottom: "1px dotted var(--second)",
                color: "var(--ink)",
                "&:focus-visible": { outline: "3px solid var(--ink)" },
              }}
            >
              Bend {exact.worst}
            </Box>{" "}
            matters most ({percent(exact.worst_share)}).{" "}
          </>
        )}
        {exact.tool_share > exact.worst_share &&
          `What is not known of the tool matters most (${percent(exact.tool_share)}): bend test pieces under Tools.`}
      </Box>
      <Ways exact={exact} editor={editor} unit={unit} />
      <Box sx={{ fontSize: 13, color: "var(--second)", mt: 1 }}>{doubtOf(exact)}</Box>
      {section && (
        <Box data-section={shown + 1} sx={{ mt: 1 }}>
          Bend {shown + 1} leaves {section.back_mm.toFixed(2)} mm of wall on its back, {section.inside_mm.toFixed(2)}{" "}
          inside; flat by about{" "}
          <Box
            component="span"
            sx={{ fontWeight: 600, color: section.flat > bench.flat_limit ? "var(--caution)" : "inherit" }}
          >
            {(section.flat * 100).toFixed(1)} %
          </Box>{" "}
          of the {(bench.flat_limit * 100).toFixed(0)} % this service takes.
        </Box>
      )}
    </Box>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

function doubtOf({ parts, spread, tool }: Exactness): string {
  const [radius = 0, zero = 0, share = 0, fixed = 0] = tool.covariance.map((row, k) => Math.sqrt(row[k] ?? 0));
  const own =
    spread.readings === 0
      ? "common practice, no readings of your own yet"
      : `${spread.readings} ${spread.readings === 1 ? "reading" : "readings"} of your own in it`;
  return (
    `${parts.toLocaleString("en")} parts made on paper, rolled and trimmed to their best; angle ${spread.angle_deg.toFixed(2)}°, ` +
    `plane ${spread.rotation_deg.toFixed(2)}°, marks ${spread.straight_mm.toFixed(2)} mm (${own}); of the tool the radius ` +
    `${radius.toFixed(2)} mm, zero ${zero.toFixed(2)} mm, spring-back ${Math.hypot(share * 90, fixed).toFixed(2)}° at 90°.`
  );
}

function Share({ of }: { of: number }) {
  return (
    <Box component="td" sx={{ textAlign: "right", font: `600 20px ${condensed}`, whiteSpace: "nowrap" }}>
      {percent(of)}
    </Box>
  );
}

const WAYS: Record<WayGain["way"], { name: string; off: string; how: string }> = {
  fit_rounds: {
    name: "Fit in rounds",
    off: "No fit rounds",
    how: "offer it, read where its end lies, tweak by how far it moves",
  },
  bend_short: {
    name: "Bend short, read, finish",
    off: "Bend at once",
    how: "stop short, read, pull what is missing",
  },
  plane_first: {
    name: "Check the plane before pulling",
    off: "Trust the turn",
    how: "read it at the clamp, then bend",
  },
  fine_gauge: { name: "A finer gauge", off: "A usual gauge", how: "for every angle and plane" },
  other_end: { name: "Begin at the other end", off: "", how: "the bend made last is another" },
  leave_long: { name: "Leave the far end long", off: "", how: "trimmed after the trial fit" },
};

/** The figure that a way goes by, before its words. */
function figureOf({ way, figure }: WayGain, unit: Unit): string {
  if (figure == null) return "";
  return way === "fine_gauge" ? `to ${sayAngle(figure)}, ` : `${sayLength(figure, unit)}, `;
}

/** What would make this part more exact, each with its gain; one click makes it the way of this line. */
function Ways({ exact, editor, unit }: { exact: Exactness; editor: LineEditor; unit: Unit }) {
  const tube = spanOf(editor.document, editor.tube);
  const set = (gain: WayGain) => {
    const change: Partial<RigidSpan> =
      gain.way === "other_end"
        ? { held: tube.held === "A" ? "B" : "A" }
        : gain.way === "leave_long"
          ? { spare: typed(`${gain.figure ?? 0} mm`, "mm") }
          : { ways: { ...tube.ways, [gain.way]: !gain.on } };
    editor.edit((was) => withSpan(was, change, editor.tube));
  };
  return (
    <Box aria-label="To be more exact" role="group" sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600 }}>
        The way of this line: {percent(exact.now.close)} drop in, {percent(exact.now.hand)} with the hand
      </Box>
      {exact.ways.map((gain) => {
        const by = gain.then.close - exact.now.close;
        const { name, off, how } = WAYS[gain.way];
        return (
          <Box
            key={gain.way}
            data-way={gain.way}
            sx={{ display: "flex", gap: 1, alignItems: "center", borderTop: "1px solid var(--rule)", py: 0.5 }}
          >
            <Box sx={{ flex: 1 }}>
              {name}{" "}
              <Box sx={{ fontSize: 13, color: "var(--second)" }}>
                {figureOf(gain, unit)}
                {how}
              </Box>
            </Box>
            <Box sx={{ font: `600 17px ${condensed}`, whiteSpace: "nowrap" }}>
              {gain.on
                ? "in use"
                : `${by >= 0 ? "+" : "−"}${Math.abs(Math.round(by * 100))} → ${percent(gain.then.close)}`}
            </Box>
            <Button size="small" onClick={() => set(gain)} aria-label={gain.on ? off : `Do it: ${name}`}>
              {gain.on ? "Undo" : "Do it"}
            </Button>
          </Box>
        );
      })}
    </Box>
  );
}
