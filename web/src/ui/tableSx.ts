/** Ruled tables for readings: no boxes, the row in hand tinted. */
export const tableSx = {
  width: "100%",
  tableLayout: "fixed",
  borderCollapse: "collapse",
  "& th[scope=col]": {
    textAlign: "left",
    fontWeight: 400,
    fontSize: 14,
    color: "var(--second)",
    px: 0.75,
    py: 0.25,
    borderBottom: "1px solid var(--ink)",
    whiteSpace: "nowrap",
  },
  "& th[scope=row]": {
    fontWeight: 500,
    fontSize: 16,
    color: "var(--second)",
    textAlign: "left",
    verticalAlign: "top",
    pt: 0.75,
    "@media (pointer: coarse)": { pt: 1.5 },
  },
  "& td": { p: 0, pt: 0.25, verticalAlign: "top" },
  "& tbody tr": { borderBottom: "1px solid var(--rule)" },
  "& tbody tr.hand": { background: "var(--hand)" },
  "& .hidden": { position: "absolute", width: "1px", height: "1px", overflow: "hidden", clipPath: "inset(50%)" },
} as const;
