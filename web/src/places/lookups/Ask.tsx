import Box from "@mui/material/Box";
import type { ReactNode } from "react";

interface Props {
  hint: string;
  problem: string;
  children: ReactNode;
  answer: ReactNode;
}

/** What is asked on the left, the answer on the right; on a narrow screen one under the other. */
export function Ask({ hint, problem, children, answer }: Props) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "minmax(280px, 380px) minmax(0, 1fr)",
        columnGap: 4,
        rowGap: 2,
        "@media (max-width: 800px)": { gridTemplateColumns: "minmax(0, 1fr)" },
      }}
    >
      <Box component="section" aria-label="What was measured">
        <Box sx={{ color: "var(--second)", mb: 1 }}>{hint}</Box>
        {children}
        {problem && (
          <Box role="alert" sx={{ color: "var(--stop)", mt: 1, overflowWrap: "anywhere" }}>
            {problem}
          </Box>
        )}
      </Box>
      <Box component="section" aria-label="Answer" aria-live="polite" sx={{ minWidth: 0 }}>
        {answer}
      </Box>
    </Box>
  );
}
