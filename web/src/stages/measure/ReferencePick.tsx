import Box from "@mui/material/Box";
import { memo } from "react";
import type { Reference } from "../../api/types";
import { condensed } from "../../theme/theme";
import { useSteady } from "../../ui/useSteady";

const WORDS: Record<Reference, { short: string; long: string }> = {
  outside: { short: "out", long: "outside corner" },
  inside: { short: "in", long: "inside corner" },
  centre: { short: "centre", long: "centreline corner" },
  back: { short: "back", long: "tape over the back of the bend" },
  hollow: { short: "hollow", long: "tape in the hollow of the bend" },
  start: { short: "start", long: "where the bend starts" },
};
const ORDER: Reference[] = ["outside", "inside", "centre", "back", "hollow", "start"];

interface Props {
  label: string;
  from: Reference | null;
  to: Reference | null;
  onFrom?: ((reference: Reference) => void) | undefined;
  onTo?: ((reference: Reference) => void) | undefined;
}

/** Where a leg was read at each of its ends; along a Z one end reads outside, the other inside. */
export function ReferencePick({ onFrom, onTo, ...shown }: Props) {
  return <Both {...shown} {...useSteady({ onFrom, onTo })} />;
}

const Both = memo(function Both({ label, from, to, onFrom, onTo }: Props) {
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        minHeight: 30,
        color: "var(--second)",
        fontFamily: condensed,
        fontSize: 16,
      }}
    >
      {from === null ? <Rim /> : <Pick label={`${label} from`} value={from} onChange={onFrom} />}
      <span aria-hidden>·</span>
      {to === null ? <Rim /> : <Pick label={`${label} to`} value={to} onChange={onTo} />}
    </Box>
  );
});

function Rim() {
  return <Box sx={{ width: 42, textAlign: "center" }}>rim</Box>;
}

function Pick({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Reference;
  onChange?: ((reference: Reference) => void) | undefined;
}) {
  return (
    <Box
      component="select"
      aria-label={label}
      title={WORDS[value].long}
      value={value}
      onChange={(event) => onChange?.(event.target.value as Reference)}
      sx={{
        appearance: "none",
        width: 42,
        minHeight: 28,
        border: 0,
        borderBottom: "1px dotted var(--second)",
        textAlign: "center",
        textAlignLast: "center",
        font: "inherit",
        color: "var(--ink)",
        background: "transparent",
        cursor: "pointer",
        "& option": { color: "var(--ink)", background: "var(--sheet)" },
        "@media (pointer: coarse)": { minHeight: 44 },
      }}
    >
      {ORDER.map((reference) => (
        <option key={reference} value={reference} title={WORDS[reference].long}>
          {WORDS[reference].short}
        </option>
      ))}
    </Box>
  );
}
