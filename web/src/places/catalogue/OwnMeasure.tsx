import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { SyntheticEvent } from "react";
import { useState } from "react";
import { sentence } from "../../api/client";
import type { OwnFigure } from "../../api/types";
import { useWays } from "../../doc/useWays";
import { Typed } from "../../ui/Entry";

/** What a shop measures itself for its way, kept with Enter or the button; `known` is what was kept before. */
export function OwnMeasure({ figure, known }: { figure: OwnFigure; known: number | undefined }) {
  const keep = useWays();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const text = typed ?? (known === undefined ? "" : `${known}°`);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    void keep({ [figure.id]: text })
      .then(() => {
        setTyped(null);
        setProblem("");
      })
      .catch((error: unknown) => setProblem(sentence(error)));
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ pl: 4.5, py: 1 }}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <span aria-hidden>{figure.label}</span>
        <Typed
          label={figure.label}
          text={text}
          placeholder={`${figure.least_deg} to ${figure.most_deg}`}
          width={90}
          takes="angle"
          onText={setTyped}
        />
        <Button type="submit" size="small" disabled={text.trim() === ""}>
          Keep for this shop
        </Button>
      </Box>
      {problem ? (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      ) : (
        known === undefined && <Box role="status">{figure.unknown}</Box>
      )}
    </Box>
  );
}
