import Box from "@mui/material/Box";

/** Says that something is being worked out, once that takes so long that somebody wonders. */
export function BeingWorkedOut({ what }: { what: string }) {
  return (
    <Box
      role="status"
      aria-label="Being worked out"
      sx={{
        color: "var(--second)",
        fontSize: 14,
        "@keyframes wondered": { to: { visibility: "visible" } },
        "& span": { visibility: "hidden", animation: "wondered 0s 0.6s forwards" },
      }}
    >
      {what && <span>{what} is being worked out…</span>}
    </Box>
  );
}
