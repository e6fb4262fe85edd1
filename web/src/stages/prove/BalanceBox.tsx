import Box from "@mui/material/Box";
import type { Closing } from "../../api/types";
import { withProving } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { sayVolume } from "../../format/amounts";
import { condensed } from "../../theme/theme";
import { Field } from "../../ui/Field";

/** Fluid in, fluid out, and what is left unexplained. */
export function BalanceBox({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const found = closing.balance;
  if (!found) return null;
  const { proving } = editor.document;
  const set = (part: { circuit_holds?: string; fluid?: string }) => editor.edit((was) => withProving(was, () => part));
  const usual = closing.volume_ml === null ? "not known" : `the line's own ${sayVolume(closing.volume_ml)}`;
  return (
    <Box component="section" aria-label="Balance" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Where the fluid went
      </Box>
      <Field
        label="Had run empty"
        text={proving.circuit_holds}
        placeholder={usual}
        onText={(circuit_holds) => set({ circuit_holds: circuit_holds.slice(0, 24) })}
      />
      <Field
        label="Fluid"
        text={proving.fluid}
        placeholder="what went in, from which bottle"
        onText={(fluid) => set({ fluid: fluid.slice(0, 80) })}
      />
      <Box role="status" aria-label="Fluid balance" data-off={found.off}>
        {found.into_ml > 0 && (
          <Box sx={{ font: `500 17px ${condensed}` }}>
            {sayVolume(found.into_ml)} in, {sayVolume(found.out_ml)} out
            {found.level_ml !== 0 && `, ${sayVolume(found.level_ml)} in the reservoir`}
            {found.holds_ml !== null && `, ${sayVolume(found.holds_ml)} in what had run empty`}
          </Box>
        )}
        {found.unexplained_ml !== null && !found.off && (
          <Box sx={{ color: "var(--good)", fontWeight: 600 }}>
            It balances: {sayVolume(found.unexplained_ml)} left over, up to {sayVolume(found.allowed_ml)} is usual.
          </Box>
        )}
        {found.off && found.unexplained_ml !== null && (
          <Box sx={{ color: "var(--caution)" }}>
            <b>
              {sayVolume(Math.abs(found.unexplained_ml))}{" "}
              {found.unexplained_ml > 0 ? "went in and is nowhere." : "less went in than there is room for."}
            </b>
            <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
              {found.reasons.map((reason) => (
                <li key={reason}>{reason}</li>
              ))}
            </Box>
          </Box>
        )}
        {found.taking !== null && (
          <Box>{found.taking ? "It still takes fluid or shows air: once more." : "It has stopped taking fluid."}</Box>
        )}
        {found.problems.map((problem) => (
          <Box key={problem} sx={{ color: "var(--stop)" }}>
            {problem}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
