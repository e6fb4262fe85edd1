import Box from "@mui/material/Box";
import type { PlaneSchool } from "../../doc/planes";

interface Props {
  school: PlaneSchool;
  onSchool: (school: PlaneSchool) => void;
}

/** The head of the planes' column says how this shop reads them, and is where that is said or changed. */
export function PlaneHead({ school, onSchool }: Props) {
  return (
    <Box
      component="select"
      aria-label="How planes are read"
      title="What a bare number means: 3 by the clock is three o’clock, in degrees it is 3°"
      value={school}
      onChange={(event) => onSchool(event.target.value as PlaneSchool)}
      sx={{
        font: "inherit",
        color: school === "" ? "var(--caution)" : "inherit",
        fontWeight: school === "" ? 600 : "inherit",
        appearance: "none",
        background: "transparent",
        border: 0,
        borderBottom: "2px dotted var(--second)",
        borderRadius: 0,
        p: 0,
        maxWidth: "100%",
        minHeight: 24,
        cursor: "pointer",
        "@media (pointer: coarse)": { minHeight: 44 },
      }}
    >
      {school === "" && <option value="">plane?</option>}
      <option value="clock">o’clock</option>
      <option value="degrees">degrees</option>
    </Box>
  );
}
