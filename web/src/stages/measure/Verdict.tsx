import Box from "@mui/material/Box";
import type { Check, Unit } from "../../api/types";
import { sayAngle, sayLength } from "../../format/units";

const ANGLES: ReadonlySet<Check["kind"]> = new Set(["way A", "way B", "lean"]);
const ONE_FIGURE: ReadonlySet<Check["kind"]> = new Set(["wire", "tape", "across"]);

/** How a further reading agrees with the readings. */
export function Verdict({ check, unit }: { check: Check | undefined; unit: Unit }) {
  if (!check) return null;
  const say = (value: number) => (ANGLES.has(check.kind) ? sayAngle(value) : sayLength(value, unit));
  const off = Math.abs(check.given - check.computed);
  const agrees = off <= check.allowed;
  return (
    <Box
      data-check={check.kind}
      data-agrees={agrees}
      sx={{
        pl: "112px",
        fontSize: 14,
        color: agrees ? "var(--good)" : "var(--caution)",
        fontWeight: agrees ? 400 : 600,
      }}
    >
      {ONE_FIGURE.has(check.kind) ? `readings say ${say(check.computed)}; ` : ""}
      {agrees
        ? `agrees within ${say(check.allowed)}`
        : `off by ${say(off)}; reading error explains ${say(off) === say(check.allowed) ? "a little less" : say(check.allowed)}`}
    </Box>
  );
}
