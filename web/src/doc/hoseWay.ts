import type { Beside, EndMove, HoseEndAt, HosePattern, HoseWay, Unit } from "../api/types";
import { freshId, typed } from "./rows";

export const blankEndAt = (unit: Unit): HoseEndAt => ({
  x: typed("", unit),
  y: typed("", unit),
  z: typed("", unit),
  way: "",
  seat: "",
});

export const blankWay = (unit: Unit): HoseWay => ({
  a: blankEndAt(unit),
  b: blankEndAt(unit),
  straight: typed("", unit),
  moves: [],
  swivel: "",
  beside: [],
});

export const blankPattern = (by: HosePattern["by"], unit: Unit): HosePattern => ({
  by,
  length: typed("", unit),
  radius: typed("", unit),
  at: typed("", unit),
  was: "",
});

export const blankMove = (unit: Unit): EndMove => ({
  id: freshId("m"),
  what: "",
  how: "hinge",
  end: "B",
  x: typed("", unit),
  y: typed("", unit),
  z: typed("", unit),
  axis: "",
  least: "",
  most: "",
});

export const blankBeside = (unit: Unit): Beside => ({
  id: freshId("b"),
  what: "",
  kind: "fixed",
  form: "bar",
  x: typed("", unit),
  y: typed("", unit),
  z: typed("", unit),
  to_x: typed("", unit),
  to_y: typed("", unit),
  to_z: typed("", unit),
  across: typed("", unit),
  out: "",
});

/** One item of a list changed, by its id. */
export const withItem = <Item extends { id?: string }>(
  list: readonly Item[],
  id: string | undefined,
  change: Partial<Item>,
): Item[] => list.map((item) => (item.id === id ? { ...item, ...change } : item));
