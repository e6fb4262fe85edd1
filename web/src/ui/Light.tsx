import { useMode } from "../theme/mode";
import { Segments } from "./Segments";

/** Day or night. */
export function Light() {
  const { mode, setMode } = useMode();
  return (
    <Segments
      label="Light"
      value={mode}
      options={[
        { value: "day", text: "day" },
        { value: "night", text: "night" },
      ]}
      onChange={setMode}
    />
  );
}
