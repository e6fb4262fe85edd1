import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Cell, Matrix, VerdictWord } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { VerdictMark } from "../../ui/VerdictMark";

const NAMES: Record<Matrix["parts"][number]["of"], string> = {
  tube: "Tube",
  end: "Ends",
  joint: "Joints",
  hose: "Hose",
  clamp: "Clamps",
  component: "Components",
};
const WORDS: VerdictWord[] = ["right", "acceptable", "caution", "refused"];

interface Picked {
  row: string;
  service: string;
  cell: Cell;
}

/** Everything that may be used, by service: a mark for each, the reason when it is chosen. */
export function MatrixView() {
  const matrix = useQuery({ queryKey: ["verdicts"], queryFn: () => take(api.GET("/api/lookups/verdicts")) });
  const [picked, setPicked] = useState<Picked | null>(null);
  if (matrix.isError) return <Box role="alert">{sentence(matrix.error)}</Box>;
  if (!matrix.data) return null;
  const { services, parts } = matrix.data;
  return (
    <>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 0.5, mb: 1 }}>
        {WORDS.map((word) => (
          <Box key={word} sx={{ display: "flex", gap: 0.75, alignItems: "center" }}>
            <VerdictMark verdict={word} /> {word === "caution" ? "with care" : word}
          </Box>
        ))}
        <Box sx={{ color: "var(--second)" }}>A dot beside a mark: this shop’s own way.</Box>
      </Box>
      <Reason picked={picked} />
      <Box
        sx={{ overflow: "auto", maxHeight: "calc(100dvh - 300px)", minHeight: 320, borderTop: "2px solid var(--ink)" }}
        tabIndex={0}
        role="region"
        aria-label="Matrix of what may be used"
      >
        <Box
          component="table"
          sx={{
            borderCollapse: "separate",
            borderSpacing: 0,
            minWidth: 980,
            width: "100%",
            "& th, & td": { borderBottom: "1px solid var(--rule)" },
            "& thead td": { position: "sticky", top: 0, left: 0, background: "var(--paper)", zIndex: 2 },
            "& thead th": {
              position: "sticky",
              top: 0,
              background: "var(--paper)",
              zIndex: 1,
              fontWeight: 400,
              fontSize: 14,
              verticalAlign: "bottom",
              p: 0.5,
              lineHeight: 1.15,
            },
            "& tbody th": {
              textAlign: "left",
              fontWeight: 400,
              position: "sticky",
              left: 0,
              background: "var(--paper)",
              minWidth: 210,
            },
          }}
        >
          <thead>
            <tr>
              <td />
              {services.map((service) => (
                <th key={service.id} scope="col">
                  {service.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <Fragment key={part.of}>
                <tr>
                  <Box
                    component="th"
                    scope="rowgroup"
                    colSpan={services.length + 1}
                    sx={{ font: `600 18px ${condensed} !important`, pt: 1.5 }}
                  >
                    {NAMES[part.of]}
                  </Box>
                </tr>
                {part.rows.map((row) => (
                  <tr key={row.id} data-row={`${part.of} ${row.id}`}>
                    <th scope="row">{row.name}</th>
                    {services.map((service) => {
                      const cell = row.cells.find((item) => item.service === service.id);
                      const here = picked !== null && picked.cell === cell;
                      return (
                        <td key={service.id}>
                          {cell && (
                            <Box
                              component="button"
                              aria-label={`${row.name}, ${service.name}: ${cell.verdict}`}
                              aria-pressed={here}
                              onClick={() => setPicked({ row: row.name, service: service.name, cell })}
                              sx={{
                                all: "unset",
                                boxSizing: "border-box",
                                cursor: "pointer",
                                width: "100%",
                                minHeight: 30,
                                display: "flex",
                                gap: 0.5,
                                alignItems: "center",
                                justifyContent: "center",
                                background: here ? "var(--hand)" : "none",
                                "&:hover": { background: "var(--hand)" },
                                "&:focus-visible": { outline: "3px solid var(--ink)", outlineOffset: -3 },
                                "@media (pointer: coarse)": { minHeight: 44 },
                              }}
                            >
                              <VerdictMark verdict={cell.verdict} />
                              {cell.preferred && (
                                <Box
                                  component="span"
                                  aria-label="this shop’s way"
                                  sx={{ width: 6, height: 6, borderRadius: 3, background: "var(--ink)" }}
                                />
                              )}
                            </Box>
                          )}
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </Fragment>
            ))}
          </tbody>
        </Box>
      </Box>
    </>
  );
}

function Reason({ picked }: { picked: Picked | null }) {
  return (
    <Box role="status" sx={{ minHeight: 72, mb: 1 }}>
      {picked ? (
        <>
          <Box sx={{ font: `600 19px ${condensed}` }}>
            {picked.row}, {picked.service}: {picked.cell.verdict === "caution" ? "with care" : picked.cell.verdict}
          </Box>
          <Box>
            {picked.cell.reason}
            {picked.cell.school && ` The choice of one school (${picked.cell.school.replace(":", ": ")}).`}
          </Box>
          <SourceLine source={picked.cell.source} />
        </>
      ) : (
        <Box sx={{ color: "var(--second)" }}>Choose a mark to read the reason and its source.</Box>
      )}
    </Box>
  );
}
