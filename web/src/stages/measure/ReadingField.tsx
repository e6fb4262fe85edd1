import Box from "@mui/material/Box";
import type { KeyboardEvent } from "react";
import { memo, useId } from "react";
import { unseen } from "../../theme/theme";
import { useSteady } from "../../ui/useSteady";
import { Input } from "../../ui/Input";

export interface RowKeys {
  insertBelow: () => void;
  remove: () => void;
  move: (by: number) => void;
}

interface Props {
  label: string;
  text: string;
  became: string;
  problem: string | undefined;
  row: number;
  column: string;
  keys: RowKeys;
  readOnly?: boolean;
  /** Shown where the field may stay blank, for what is meant then. */
  usual?: string;
  onText: (text: string) => void;
  onFocus: () => void;
}

/** One reading as typed, with what it became under it. Arrows and Enter walk the column. */
export function ReadingField({ keys, onText, onFocus, ...shown }: Props) {
  return <Reading {...shown} {...useSteady({ onText, onFocus })} keys={useSteady(keys)} />;
}

const Reading = memo(function Reading({
  label,
  text,
  became,
  problem,
  row,
  column,
  keys,
  readOnly,
  usual,
  onText,
  onFocus,
}: Props) {
  const id = useId();
  const blank = text.trim() === "";
  const wrong = problem !== undefined && !blank;
  return (
    <Box sx={{ position: "relative" }}>
      <Input
        size="reading"
        spellCheck={false}
        aria-label={label}
        aria-describedby={id}
        title={problem}
        readOnly={readOnly}
        placeholder={usual}
        text={text}
        wrong={wrong}
        data-row={row}
        data-column={column}
        takes={column === "plane" ? undefined : column === "angle" ? "angle" : "length"}
        onText={onText}
        onFocus={(event) => {
          event.target.select();
          onFocus();
        }}
        onKeyDown={(event) => walk(event, row, column, keys)}
        sx={{
          background: "transparent",
          borderStyle: blank && !wrong ? "dashed" : "solid",
          ...(wrong || (blank && !readOnly && usual === undefined) ? {} : { borderColor: "transparent" }),
          "&::placeholder": { color: "var(--second)", opacity: 1, fontWeight: 500 },
          "&:hover": { borderColor: wrong ? "var(--stop)" : "var(--rule)" },
          "&:focus": {
            outline: "none",
            background: "var(--sheet)",
            borderColor: wrong ? "var(--stop)" : "var(--action)",
          },
        }}
      />
      <Box
        id={id}
        sx={{
          px: 0.75,
          fontSize: 13,
          lineHeight: "16px",
          minHeight: 16,
          color: wrong ? "var(--stop)" : "var(--second)",
          whiteSpace: "nowrap",
          overflow: wrong ? "visible" : "hidden",
          textOverflow: "ellipsis",
        }}
      >
        {wrong ? "not read" : became}
        {wrong && (
          <Box component="span" sx={unseen}>
            : {problem}
          </Box>
        )}
      </Box>
    </Box>
  );
});

function walk(event: KeyboardEvent<HTMLInputElement>, row: number, column: string, keys: RowKeys): void {
  const command = event.ctrlKey || event.metaKey;
  if (event.key === "Enter" && command) keys.insertBelow();
  else if (event.key === "Backspace" && command) keys.remove();
  else if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown"))
    keys.move(event.key === "ArrowUp" ? -1 : 1);
  else if (event.key === "Enter" || event.key === "ArrowDown") focusReading(row + 1, column);
  else if (event.key === "ArrowUp") focusReading(row - 1, column);
  else return;
  event.preventDefault();
}

/** Put the cursor into a field of the readings; a row without that column gives its first. */
export function focusReading(row: number, column: string): void {
  const exact = document.querySelector<HTMLInputElement>(`input[data-row="${row}"][data-column="${column}"]`);
  const first = document.querySelector<HTMLInputElement>(`input[data-row="${row}"]`);
  (exact ?? first)?.focus();
}
