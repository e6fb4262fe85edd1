/** How a field looks. */
export const control = {
  width: "100%",
  minHeight: 34,
  px: 0.75,
  fontFamily: "Barlow, sans-serif",
  fontSize: 16,
  color: "var(--ink)",
  background: "var(--sheet)",
  border: "1px solid var(--second)",
  borderRadius: "2px",
  textOverflow: "ellipsis",
  "&::placeholder": { color: "var(--second)", opacity: 1 },
  "@media (pointer: coarse)": { minHeight: 44 },
} as const;
