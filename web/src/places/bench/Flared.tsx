import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Flaring, MadeFlare } from "../../api/types";
import { useFlares } from "../../doc/useFlares";
import type { MakingEditor } from "../../doc/useMaking";
import { FlareGuide } from "../../ui/FlareGuide";
import { Reading } from "./Readings";

/** A flare at the bench: how it is made, how wide it came out, and what one that failed costs. */
export function Flared({ editor, flaring }: { editor: MakingEditor; flaring: Flaring }) {
  const { making, keep } = editor;
  const { unit } = making.document;
  const stands = useFlares(making).find((one) => one.end === flaring.end);
  const made: MadeFlare = making.state.flares.find((one) => one.end === flaring.end) ?? {
    end: flaring.end,
    across: "",
    unit,
    failed: 0,
  };
  const note = (change: Partial<MadeFlare>) =>
    keep((state) => ({
      ...state,
      flares: [...state.flares.filter((one) => one.end !== flaring.end), { ...made, ...change }],
    }));
  const ended = making.ended_at !== null;
  const misread = stands?.verdict === "cannot be read";
  return (
    <Box sx={{ mt: 2 }}>
      <FlareGuide flaring={flaring} large />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, alignItems: "flex-end", mt: 2, maxWidth: 760 }}>
        <Box sx={{ width: 300 }}>
          <Reading
            label="Across the rim"
            worth=""
            holder={unit === "in" ? "0.276" : "7.0"}
            takes="length"
            text={made.across}
            problem={misread ? stands.text : undefined}
            first={false}
            onText={(text) => note({ across: text.slice(0, 40), unit })}
          />
        </Box>
        <Button
          sx={{ minHeight: 64, fontSize: 22 }}
          disabled={ended || made.failed >= 20}
          onClick={() => note({ failed: made.failed + 1, across: "" })}
        >
          It failed: cut off
        </Button>
        {made.failed > 0 && (
          <Button
            sx={{ minHeight: 64, fontSize: 22 }}
            disabled={ended}
            onClick={() => note({ failed: made.failed - 1 })}
          >
            Not cut off after all
          </Button>
        )}
      </Box>
      {stands && stands.text && !misread && (
        <Box
          role="status"
          data-flare={stands.verdict}
          sx={{
            fontSize: 22,
            mt: 1,
            color: COLOUR[stands.verdict],
            fontWeight: stands.verdict === "right" ? 400 : 600,
          }}
        >
          {stands.text}
        </Box>
      )}
      {stands && <Box sx={{ fontSize: 20, color: "var(--second)", mt: 1 }}>{stands.lost}</Box>}
    </Box>
  );
}

const COLOUR = {
  "": "var(--ink)",
  right: "var(--good)",
  "too small": "var(--caution)",
  "too wide": "var(--caution)",
  "no range is known": "var(--ink)",
  "cannot be read": "var(--stop)",
} as const;
