import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { LineSummary, Severity } from "../../api/types";
import { SeverityMark } from "../../ui/SeverityMark";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";

const SEVERITIES: Severity[] = ["stop", "caution", "note"];

interface Props {
  lines: readonly LineSummary[];
  actions?: (line: LineSummary) => ReactNode;
}

/** Lines with what they are, what is against them, and what happens next. */
export function LineTable({ lines, actions }: Props) {
  if (lines.length === 0) return <Box sx={{ py: 2, color: "var(--second)" }}>No lines yet.</Box>;
  return (
    <Box
      component="table"
      sx={{
        width: "100%",
        tableLayout: "fixed",
        borderCollapse: "collapse",
        "& th": { textAlign: "left", fontWeight: 400, color: "var(--second)", fontSize: 14, py: 0.5 },
        "& td": { py: 1, pr: 2, borderTop: "1px solid var(--rule)", verticalAlign: "middle" },
        "@media (max-width: 1000px)": { "& .wide": { display: "none" } },
      }}
    >
      <colgroup>
        <col />
        <col className="wide" style={{ width: "24%" }} />
        <col className="wide" style={{ width: 64 }} />
        <col style={{ width: 112 }} />
        <col style={{ width: 130 }} />
        <col style={{ width: actions ? 170 : "20%" }} />
        {actions && <col style={{ width: 190 }} />}
      </colgroup>
      <thead>
        <tr>
          <th scope="col">line</th>
          <th scope="col" className="wide">
            tube
          </th>
          <th scope="col" className="wide">
            bends
          </th>
          <th scope="col">cut</th>
          <th scope="col">findings</th>
          <th scope="col">next</th>
          {actions && <th scope="col">change</th>}
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.id}>
            <Box
              component="td"
              sx={{
                font: `600 19px ${condensed}`,
                overflowWrap: "anywhere",
                "& a": { color: "var(--ink)", display: "inline-block", py: 0.5 },
              }}
            >
              <Link to={`/lines/${line.id}`}>{line.name}</Link>
              {line.unreadable && (
                <Box sx={{ fontSize: 15, fontWeight: 400, color: "var(--stop)" }}>{line.unreadable}</Box>
              )}
            </Box>
            <Box component="td" className="wide" sx={{ color: "var(--second)" }}>
              {[line.service, line.tube].filter(Boolean).join(", ")}
              {line.reasons.length > 0 && <Box sx={{ color: "var(--ink)" }}>{line.reasons.join(", ")}</Box>}
            </Box>
            <td className="wide">{line.bends}</td>
            <Box component="td" sx={{ font: `600 18px ${condensed}`, whiteSpace: "nowrap" }}>
              {line.cut_mm == null ? "—" : sayLength(line.cut_mm, line.unit)}
            </Box>
            <Box component="td" sx={{ whiteSpace: "nowrap" }}>
              <Box sx={{ display: "flex", gap: 1.25 }}>
                {SEVERITIES.filter((severity) => line.findings[severity]).map((severity) => (
                  <Box key={severity} sx={{ display: "flex", gap: 0.5, alignItems: "center" }}>
                    <SeverityMark severity={severity} size={18} /> {line.findings[severity]}
                  </Box>
                ))}
                {line.worst == null && line.cut_mm != null && <Box sx={{ color: "var(--good)" }}>none</Box>}
              </Box>
            </Box>
            <td>
              {line.next_step}
              {!line.reckoned && line.next_step && (
                <Box sx={{ fontSize: 14, color: "var(--second)" }}>being worked out anew</Box>
              )}
              {line.urgency === "off the road" && (
                <Box sx={{ color: "var(--stop)", fontWeight: 600 }}>off the road</Box>
              )}
              {line.twin_open && <Box sx={{ fontSize: 14, color: "var(--second)" }}>look at its twin</Box>}
            </td>
            {actions && <td>{actions(line)}</td>}
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
