import type { Fixture, Unit } from "../api/types";
import { typed } from "./rows";

/** A clip of which nothing is said yet but whether it was found, or is to be fitted. */
export const blankFixture = (unit: Unit, state: Fixture["state"]): Fixture => ({
  id: "",
  span: "",
  kind: "clip",
  state,
  at: typed("", unit),
  note: "",
  photo: "",
  clip: "",
  fixed_to: "",
  drill: typed("", unit),
  behind: "",
  shared: "",
});
