/** A button for a gloved thumb, also where the theme makes touch targets smaller. */
export const big = { minHeight: 72, fontSize: 26, px: 3, "@media (pointer: coarse)": { minHeight: 72 } } as const;
