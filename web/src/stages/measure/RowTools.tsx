import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { condensed } from "../../theme/theme";
import type { RowKeys } from "./ReadingField";

interface Props {
  what: string;
  keys: RowKeys;
  first: boolean;
  last: boolean;
  radius: string | null;
  usual: string;
  onRadius: (text: string) => void;
}

/** What can be done with the row in hand, for those who do not use the keys. */
export function RowTools({ what, keys, first, last, radius, usual, onRadius }: Props) {
  const small = { minWidth: 40, px: 1 } as const;
  return (
    <>
      <Button
        size="small"
        sx={small}
        disabled={first}
        onClick={() => keys.move(-1)}
        aria-label={`Move ${what} up`}
        title="Alt+↑"
      >
        ↑
      </Button>
      <Button
        size="small"
        sx={small}
        disabled={last}
        onClick={() => keys.move(1)}
        aria-label={`Move ${what} down`}
        title="Alt+↓"
      >
        ↓
      </Button>
      <Button size="small" onClick={keys.remove} aria-label={`Take ${what} out`} title="Ctrl+Backspace">
        Take out
      </Button>
      {radius !== null && (
        <Box
          component="label"
          sx={{ display: "flex", alignItems: "center", gap: 1, color: "var(--second)", width: "100%" }}
        >
          Radius of {what}
          <Box
            component="input"
            value={radius}
            placeholder={usual}
            onChange={(event) => onRadius(event.target.value)}
            sx={{
              width: 96,
              minHeight: 30,
              px: 0.75,
              font: `600 17px ${condensed}`,
              color: "var(--ink)",
              background: "transparent",
              border: "1px solid var(--second)",
              borderRadius: "2px",
              "&::placeholder": { color: "var(--second)", opacity: 1 },
            }}
          />
          <span>{radius ? "" : "the bender’s"}</span>
        </Box>
      )}
    </>
  );
}
