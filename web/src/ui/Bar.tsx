import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Link, NavLink } from "react-router";
import { condensed } from "../theme/theme";
import { KeyHelp } from "./KeyHelp";
import { Light } from "./Light";

interface Step {
  text: string;
  to: string;
}

/** The bar at the top of every place: where you are, and day or night. */
export function Bar({ trail, title, children }: { trail: Step[]; title: ReactNode; children?: ReactNode }) {
  return (
    <Box
      component="header"
      sx={{
        minHeight: 48,
        px: 2,
        py: 0.5,
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 2,
        borderBottom: "1px solid var(--rule)",
      }}
    >
      <Box
        component="nav"
        aria-label="Where you are"
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1,
          minWidth: 0,
          flex: "1 1 240px",
          "& a": { color: "var(--second)", textDecoration: "none", whiteSpace: "nowrap", py: 1 },
          "& a:hover": { textDecoration: "underline" },
        }}
      >
        {trail.map((step, k) => (
          <Box
            key={step.to}
            sx={{
              color: "var(--second)",
              minWidth: 40,
              // where one is counts more than the way there; the way home is short and whole
              flexShrink: k === 0 ? 0 : 1000,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            <Link to={step.to}>{step.text}</Link> ›
          </Box>
        ))}
        <Box
          component="h1"
          sx={{
            m: 0,
            fontFamily: condensed,
            fontWeight: 600,
            fontSize: 22,
            minWidth: 0,
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
        >
          {title}
        </Box>
      </Box>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}>
        {children}
        <Box
          component="nav"
          aria-label="Places"
          sx={{
            display: "flex",
            gap: 1.5,
            "& a": { color: "var(--ink)", textDecoration: "none", font: `600 17px ${condensed}`, py: 1 },
            "& a:hover, & a[aria-current]": { textDecoration: "underline", textUnderlineOffset: 4 },
          }}
        >
          <NavLink to="/lookups">Look-ups</NavLink>
          <NavLink to="/catalogue">Catalogue</NavLink>
          <NavLink to="/tools">Tools</NavLink>
          <NavLink to="/stock">Stock</NavLink>
        </Box>
        <KeyHelp />
        <Light />
      </Box>
    </Box>
  );
}
