import Box from "@mui/material/Box";
import { useState } from "react";
import { NavLink, useParams } from "react-router";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { Field } from "../../ui/Field";
import { useCatalogueOr } from "../../doc/useCatalogue";
import { condensed } from "../../theme/theme";
import { OwnEntries } from "../../ui/OwnEntries";
import { RowsTable } from "./RowsTable";
import { sourcesOf, tablesOf } from "./tables";
import { Ways } from "./Ways";

/** Every row that Bendrel reckons with, its source, the shop's own rows, stock and prices. */
export default function CataloguePage() {
  const { table = "tubes" } = useParams();
  const [wanted, setWanted] = useState("");
  const { catalogue, problem } = useCatalogueOr();
  if (!catalogue)
    return (
      <>
        <Bar trail={[{ text: "Bench", to: "/" }]} title="Catalogue" />
        {problem && (
          <Box component="main" role="alert" sx={{ p: 2 }}>
            {problem}
          </Box>
        )}
      </>
    );
  const tables = tablesOf(catalogue);
  const here = tables.find((item) => item.id === table);
  if (!here && table !== "ways") return <NotHere text={`The catalogue has no part “${table}”.`} />;
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Catalogue" />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "200px minmax(0, 1fr)",
          maxWidth: 1280,
          mx: "auto",
          "@media (max-width: 800px)": { gridTemplateColumns: "minmax(0, 1fr)" },
        }}
      >
        <Box
          component="nav"
          aria-label="Parts of the catalogue"
          sx={{
            py: 1,
            borderRight: "1px solid var(--rule)",
            "& a": {
              display: "flex",
              justifyContent: "space-between",
              px: 2,
              minHeight: 36,
              alignItems: "center",
              font: `600 17px ${condensed}`,
              color: "var(--ink)",
              textDecoration: "none",
              "@media (pointer: coarse)": { minHeight: 44 },
            },
            "& a[aria-current]": { background: "var(--ink)", color: "var(--paper)" },
            "@media (max-width: 800px)": {
              display: "flex",
              flexWrap: "wrap",
              borderRight: 0,
              borderBottom: "1px solid var(--rule)",
            },
          }}
        >
          {tables.map((item) => (
            <NavLink key={item.id} to={`/catalogue/${item.id}`} aria-current={item.id === table ? "page" : undefined}>
              {item.name}{" "}
              <Box component="span" sx={{ fontWeight: 400, pl: 1 }}>
                {item.rows.length}
              </Box>
            </NavLink>
          ))}
          <NavLink to="/catalogue/ways" aria-current={table === "ways" ? "page" : undefined}>
            The shop’s ways
          </NavLink>
          <Box
            component="section"
            aria-label="What the rows rest on"
            sx={{
              px: 2,
              pt: 1.5,
              color: "var(--second)",
              fontSize: 14,
              "@media (max-width: 800px)": {
                flexBasis: "100%",
                display: "flex",
                flexWrap: "wrap",
                columnGap: 2,
                pt: 0,
              },
            }}
          >
            What the rows rest on
            {sourcesOf(tables).map(([kind, rows]) => (
              <Box key={kind} sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
                <span>{kind}</span> <span>{rows}</span>
              </Box>
            ))}
          </Box>
        </Box>
        <Box component="main" sx={{ p: 2, minWidth: 0 }}>
          {here ? (
            <>
              <Box sx={{ maxWidth: 420, mb: 1 }}>
                <Field label="Search" text={wanted} placeholder="3/8 steel, M10x1, glycol" onText={setWanted} />
              </Box>
              <OwnEntries shelf={here.id} catalogue={catalogue} />
              <RowsTable key={here.id} table={here} wanted={wanted} />
            </>
          ) : (
            <Ways catalogue={catalogue} />
          )}
        </Box>
      </Box>
    </>
  );
}
