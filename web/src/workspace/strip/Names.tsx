import type { Line, Plan } from "../../api/types";
import { useSelection } from "../../doc/select";
import { sayFigure } from "../../format/units";
import { TUBE_H, TUBE_Y } from "./along";
import { lanes } from "./lanes";
import type { Layout, Segment } from "./layout";

interface Props {
  line: Line;
  layout: Layout;
  plan: Plan | null;
  /** The tube that is worked on: its ruler and its marks say what it is. */
  worked: string;
}

/** Pixels that a letter takes at the size of a name, and rows over the line that names may stand in. */
const LETTER = 5.8;
const ROWS = [TUBE_Y - 22, TUBE_Y - 38, TUBE_Y - 54];
/** What the signs of two joints take at the ends of a piece. */
const SIGNS = 50;

/** What every piece is and how long it is cut: hoses and components over the line, tubes under it. */
export function Names({ line, layout, plan, worked }: Props) {
  const { place } = useSelection();
  const named = layout.segments.map((segment) => ({ segment, name: nameOf(line, segment, plan) }));
  const over = named.filter(({ segment }) => segment.kind !== "rigid");
  const rows = lanes(
    over.map(({ segment }) => segment.x + segment.width / 2),
    over.map(({ name }) => name.length * LETTER + 8),
    ROWS.length,
  );
  return (
    <>
      {over.map(({ segment, name }, k) => {
        const here = place?.kind === "span" && place.id === segment.id;
        const y = ROWS[rows[k] ?? -1];
        if (y === undefined) return null;
        return (
          <text
            key={segment.id}
            data-name={segment.id}
            x={segment.x + segment.width / 2}
            y={y}
            textAnchor="middle"
            fontSize="13"
            fontWeight={here ? 600 : 500}
            fill="var(--ink)"
            stroke="var(--sheet)"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {name}
          </text>
        );
      })}
      {named
        .filter(
          ({ segment, name }) =>
            segment.kind === "rigid" && segment.id !== worked && segment.width > name.length * LETTER + SIGNS,
        )
        .map(({ segment, name }) => (
          <text
            key={segment.id}
            data-name={segment.id}
            x={segment.x + segment.width / 2}
            y={TUBE_Y + TUBE_H + 22}
            textAnchor="middle"
            fontSize="12.5"
            fill="var(--second)"
          >
            {name}
          </text>
        ))}
    </>
  );
}

function nameOf(line: Line, segment: Segment, plan: Plan | null): string {
  const span = line.spans.find((one) => one.id === segment.id);
  const say = (mm: number) => sayFigure(mm, line.unit);
  if (span?.kind === "component") return span.what;
  if (span?.kind === "hose") {
    const placed = plan?.chosen?.pieces.hoses.find((one) => one.stands.span === span.id);
    const name = `${span.state === "stays" ? "old hose" : "hose"}${placed ? ` ${placed.hose.size}` : ""}`;
    if (placed?.cut_mm != null && span.state !== "stays") return `${name}, cut ${say(placed.cut_mm)}`;
    return placed?.length_mm == null ? name : `${name}, ${say(placed.length_mm)} over all`;
  }
  const part = plan?.pieces.find((one) => one.span === segment.id)?.part;
  if (span?.kind === "rigid" && span.state === "stays") return "old tube, stays";
  return part ? `tube, cut ${say(part.cut_mm)}` : "tube";
}
