import Box from "@mui/material/Box";
import { useNavigate } from "react-router";
import type { JobCircuits } from "../../../api/types";
import { condensed } from "../../../theme/theme";
import type { ComponentSpan } from "../../../api/types";
import { Sign } from "../../../workspace/Sign";
import type { DrawnLine, LaidLine, LaidSpan } from "./layout";
import { laidOut, shortly } from "./layout";

interface Props {
  group: readonly string[];
  circuits: JobCircuits;
  /** Flow told by line, in the shop's words. */
  flows: ReadonlyMap<string, string>;
}

/** The circuit as a plan of lines and components, not to scale; each of them leads into its line. */
export function Plan({ group, circuits, flows }: Props) {
  const paper = laidOut(group, circuits.lines);
  const wrong = new Set(
    circuits.findings.filter((one) => one.severity !== "note").map((one) => `${one.line} ${one.span}`),
  );
  return (
    <Box sx={{ overflowX: "auto", border: "1px solid var(--rule)", background: "var(--sheet)" }}>
      <Box
        component="svg"
        width={paper.width}
        height={paper.height}
        viewBox={`0 0 ${paper.width} ${paper.height}`}
        role="group"
        aria-label="Plan of the circuit"
        sx={{ display: "block", fontFamily: condensed, "& a:focus-visible": { outline: "3px solid var(--ink)" } }}
      >
        {paper.drops.map((drop) => (
          <path
            key={drop.key}
            d={`M${drop.x} ${drop.from + 14} V${drop.to} H${drop.toX}`}
            fill="none"
            stroke="var(--second)"
            strokeWidth={2}
            strokeDasharray="4 3"
          />
        ))}
        {paper.lines.map((laid) => (
          <OneLine key={laid.line.id} laid={laid} wrong={wrong} flow={flows.get(laid.line.id)} />
        ))}
      </Box>
    </Box>
  );
}

function OneLine({ laid, wrong, flow }: { laid: LaidLine; wrong: ReadonlySet<string>; flow: string | undefined }) {
  const { line, y, left, right, turned } = laid;
  const [first, last] = turned ? (["B", "A"] as const) : (["A", "B"] as const);
  return (
    <g>
      <To line={line} span="" label={`${line.name}, whole line`}>
        <text x={left + 14} y={y - 24} fontSize={16} fontWeight={600} fill="var(--ink)">
          {line.name}
          {flow && (
            <tspan fontWeight={400} fill="var(--second)">
              {"  "}
              {flow}
            </tspan>
          )}
        </text>
      </To>
      <path d={`M${left} ${y} H${right}`} stroke="var(--rule)" strokeWidth={2} fill="none" />
      {laid.spans.map((span) => (
        <To key={span.span} line={line} span={span.span} label={`${span.what} of ${line.name}`}>
          <Drawn span={span} y={y} wrong={wrong.has(`${line.id} ${span.span}`)} />
        </To>
      ))}
      {[
        { end: first, x: left, side: "left" as const },
        { end: last, x: right, side: "right" as const },
      ].map(({ end, x, side }) => (
        <AtEnd key={end} line={line} end={end} x={x} y={y} side={side} wrong={wrong.has(`${line.id} `)} />
      ))}
    </g>
  );
}

function AtEnd({
  line,
  end,
  x,
  y,
  side,
  wrong,
}: {
  line: DrawnLine;
  end: "A" | "B";
  x: number;
  y: number;
  side: "left" | "right";
  wrong: boolean;
}) {
  const on = end === "A" ? line.on_a : line.on_b;
  if (on) return null;
  const label = end === "A" ? line.label_a : line.label_b;
  const role = end === "A" ? line.role_a : line.role_b;
  const unit = end === "A" ? line.unit_a : line.unit_b;
  const colour = end === "A" ? line.colour_a : line.colour_b;
  const anchor = side === "left" ? "end" : "start";
  const at = side === "left" ? x - 10 : x + 10;
  return (
    <g>
      <circle
        cx={x}
        cy={y}
        r={6}
        fill={role === "not known" && !unit ? "var(--sheet)" : "var(--ink)"}
        stroke={wrong ? "var(--stop)" : "var(--ink)"}
        strokeWidth={2}
      />
      <text x={at} y={y - 2} textAnchor={anchor} fontSize={14} fill="var(--ink)">
        {shortly(label) || `port ${end}`}
      </text>
      <text x={at} y={y + 13} textAnchor={anchor} fontSize={13} fill="var(--second)">
        {[unit || (role === "not known" ? "" : role), colour].filter(Boolean).join(", ")}
      </text>
    </g>
  );
}

function Drawn({ span, y, wrong }: { span: LaidSpan; y: number; wrong: boolean }) {
  if (span.what === "tube" || span.what === "hose")
    return (
      <g>
        <rect x={span.x - 34} y={y - 18} width={68} height={36} fill="transparent" />
        <line
          x1={span.x - 30}
          x2={span.x + 30}
          y1={y}
          y2={y}
          stroke={span.what === "tube" ? "var(--tube)" : "var(--ink)"}
          strokeWidth={span.what === "tube" ? 5 : 9}
          strokeLinecap="round"
        />
        {span.what === "hose" && (
          <line
            x1={span.x - 30}
            x2={span.x + 30}
            y1={y}
            y2={y}
            stroke="var(--shadow)"
            strokeWidth={5}
            strokeLinecap="round"
          />
        )}
        {wrong && <circle cx={span.x} cy={y} r={12} fill="none" stroke="var(--stop)" strokeWidth={2.5} />}
      </g>
    );
  return (
    <g>
      <rect x={span.x - 34} y={y - 22} width={68} height={44} fill="transparent" />
      <Sign what={span.what as ComponentSpan["what"]} x={span.x} y={y} />
      {wrong && <circle cx={span.x} cy={y} r={24} fill="none" stroke="var(--stop)" strokeWidth={2.5} />}
      <text
        x={span.branched ? span.x - 8 : span.x}
        y={y + 32}
        textAnchor={span.branched ? "end" : "middle"}
        fontSize={13}
        fill="var(--second)"
      >
        {span.what}
      </text>
    </g>
  );
}

/** A way into a line, to one of its pieces. */
function To({
  line,
  span,
  label,
  children,
}: {
  line: DrawnLine;
  span: string;
  label: string;
  children: React.ReactNode;
}) {
  const navigate = useNavigate();
  const to = `/lines/${line.id}/choose${span ? `?piece=${span}` : ""}`;
  return (
    <a
      href={to}
      aria-label={label}
      onClick={(event) => {
        if (event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        void navigate(to);
      }}
    >
      {children}
    </a>
  );
}
