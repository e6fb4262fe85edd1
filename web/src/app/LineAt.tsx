import { useEffect } from "react";
import { LinePage } from "../workspace/LinePage";
import { fetchStages, PANELS } from "./panels";

/** A line's page, with what its stages ask. */
export default function LineAt() {
  useEffect(fetchStages, []);
  return <LinePage panels={PANELS} />;
}
