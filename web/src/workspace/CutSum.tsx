import Box from "@mui/material/Box";
import { memo } from "react";
import type { Unit } from "../api/types";
import { useSelection } from "../doc/select";
import type { PlanView } from "../doc/usePlan";
import { condensed, pressable } from "../theme/theme";
import { sayLength } from "../format/units";

interface Props {
  unit: Unit;
  /** Copied alongside the old part: nothing is known of where end B comes to. */
  copied: boolean;
  view: PlanView;
  /** Short, and always in sight at the foot of its panel. */
  pinned?: boolean;
}

/** The cut length term by term; every figure opens its working. */
export const CutSum = memo(function CutSum({ unit, copied, view, pinned = false }: Props) {
  const { showWorking } = useSelection();
  const { part, old } = view;
  if (!part) return null;
  const doubt = view.piece?.measured.doubt;
  const [developed, ...added] = part.terms;
  const terms =
    pinned && developed
      ? [developed, { id: "cut", label: "ends and spare", mm: added.reduce((sum, term) => sum + term.mm, 0) }]
      : part.terms;
  const foot = pinned
    ? ({
        position: "sticky",
        bottom: 0,
        px: 2,
        py: 1,
        background: "var(--paper)",
        borderTop: "1px solid var(--rule)",
        "@media (max-width: 900px)": { bottom: 172 },
      } as const)
    : { mt: 2 };
  return (
    <Box sx={{ ...foot, "& > *": { opacity: old ? 0.5 : 1 } }} aria-label="Cut length" component="section">
      <Box sx={pinned ? { display: "flex", justifyContent: "space-between", columnGap: 1.5 } : {}}>
        {terms.map((term, k) => (
          <Box
            key={term.id}
            sx={{
              display: "flex",
              justifyContent: "space-between",
              alignItems: "baseline",
              minHeight: 26,
              columnGap: 0.75,
              whiteSpace: "nowrap",
            }}
          >
            <Box
              sx={{
                color: "var(--second)",
                overflow: "hidden",
                textOverflow: "ellipsis",
                ...(pinned ? { fontFamily: condensed, fontSize: 16 } : {}),
              }}
            >
              {term.label}
            </Box>
            <Figure
              text={`${k > 0 ? "+ " : ""}${sayLength(term.mm, unit)}`}
              {...(term.id === "spare" ? {} : { onClick: () => showWorking(term.id) })}
            />
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", mt: 0.25 }}>
        <Box sx={{ fontSize: 17 }}>
          cut
          {pinned && doubt && (
            <Box
              component="span"
              title="What the reading errors allow, in 95 of 100 cases"
              sx={{ ml: 1, fontSize: 14, color: "var(--second)" }}
            >
              ± {sayLength(doubt.developed_mm, unit)}
              {!copied && `, end B within ${sayLength(doubt.meets_mm, unit)}`}
            </Box>
          )}
        </Box>
        <Box
          component="button"
          onClick={() => showWorking("cut")}
          title="Show the working"
          sx={{
            all: "unset",
            cursor: "pointer",
            font: `600 30px/1.15 ${condensed}`,
            "& span": { borderBottom: "2.5px solid var(--tube)" },
            "&:focus-visible": { outline: "3px solid var(--ink)" },
            ...pressable,
          }}
        >
          <span>{sayLength(part.cut_mm, unit)}</span>
        </Box>
      </Box>
    </Box>
  );
});

function Figure({ text, onClick }: { text: string; onClick?: () => void }) {
  const sx = { font: `600 18px ${condensed}` } as const;
  if (!onClick) return <Box sx={sx}>{text}</Box>;
  return (
    <Box
      component="button"
      onClick={onClick}
      title="Show the working"
      sx={{
        all: "unset",
        ...sx,
        cursor: "pointer",
        "& span": { borderBottom: "1px dotted var(--second)" },
        "&:focus-visible": { outline: "3px solid var(--ink)" },
        ...pressable,
      }}
    >
      <span>{text}</span>
    </Box>
  );
}
