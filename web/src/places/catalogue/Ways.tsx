import Box from "@mui/material/Box";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { sentence } from "../../api/client";
import type { Catalogue } from "../../api/types";
import { useWays } from "../../doc/useWays";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { OwnMeasure } from "./OwnMeasure";

/** Where practitioners differ: both sides with their reason, and this shop's own way. */
export function Ways({ catalogue }: { catalogue: Catalogue }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState("");
  const [mine, setMine] = useState<Record<string, string>>({});
  const chosen: Record<string, string> = { ...catalogue.preferences, ...mine };
  const keep = useWays();
  const prefer = (question: string, answer: string) => {
    setMine({ ...mine, [question]: answer });
    void keep({ [question]: answer })
      .then(() =>
        Promise.all([["verdicts"], ["jobs"], ["compare"]].map((queryKey) => client.invalidateQueries({ queryKey }))),
      )
      .then(() => {
        setMine({});
        setProblem("");
      })
      .catch((error: unknown) => {
        setMine({});
        setProblem(sentence(error));
      });
  };
  return (
    <Box sx={{ maxWidth: 760 }}>
      <Box sx={{ mb: 2 }}>
        Good people disagree on these. Choose this shop’s way; Bendrel puts it first, and still says what the others
        say.
      </Box>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {problem}
        </Box>
      )}
      {catalogue.schools.map((school) => (
        <Box
          key={school.id}
          component="fieldset"
          sx={{ border: 0, p: 0, m: 0, mb: 3, borderTop: "2px solid var(--ink)" }}
        >
          <Box component="legend" sx={{ font: `600 20px ${condensed}`, pr: 1, py: 0.5 }}>
            {school.question}
          </Box>
          {school.options.map((option) => (
            <Box
              component="label"
              key={option.id}
              sx={{
                display: "flex",
                gap: 1.5,
                py: 0.75,
                minHeight: 44,
                cursor: "pointer",
                borderBottom: "1px solid var(--rule)",
              }}
            >
              <input
                type="radio"
                name={school.id}
                checked={chosen[school.id] === option.id}
                onChange={() => prefer(school.id, option.id)}
                style={{ width: 20, height: 20, flex: "none", accentColor: "var(--ink)" }}
              />
              <Box>
                <b>{option.name}</b> <Box component="span">{option.reason}</Box>
              </Box>
            </Box>
          ))}
          {school.options.map(
            ({ id, figure }) =>
              figure &&
              chosen[school.id] === id && (
                <OwnMeasure key={figure.id} figure={figure} known={catalogue.own_figures[figure.id]} />
              ),
          )}
          <SourceLine source={school.source} />
        </Box>
      ))}
    </Box>
  );
}
