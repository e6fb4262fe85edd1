/** The three lengths by which a place is told from end A. */
export const SIDES = [
  { name: "ahead", label: "ahead of A", holder: "along A’s way" },
  { name: "up", label: "up", holder: "to 12:00, − below" },
  { name: "right", label: "across", holder: "to 3:00, − to 9:00" },
] as const;
