import { expect, test } from "vitest";
import type { JointStanding, Watch } from "../api/types";
import { actsAt, standsAt } from "./watching";

const CLOTH = {
  each: true,
  begin: "Dried",
  good: "It is dry",
  bad: "It is wet",
  early: "Dry at a first look",
} as Watch;
const SOAP = { ...CLOTH, begin: "", good: "No bubbles", bad: "It bubbles", early: "" };
const AIR_IN = { ...SOAP, each: false, good: "It holds now", bad: "It leaks here" };
const NOW = new Date("2026-11-27T10:00:00");
const stands = (state: JointStanding["state"], more: Partial<JointStanding> = {}) =>
  ({ state, until: "", first_look: false, held: false, rung: null, ...more }) as JointStanding;
const said = (watch: Watch, standing: JointStanding | undefined, asked = false) => {
  const { next, others } = actsAt(watch, standing, NOW, asked);
  return [next?.word ?? null, ...others.map((act) => act.word)];
};

test("a wait that is over asks for the look", () => {
  expect(standsAt(undefined, NOW)).toBe("open");
  expect(standsAt(stands("drying", { until: "2026-11-27T10:00:01" }), NOW)).toBe("drying");
  expect(standsAt(stands("drying", { until: "2026-11-27T10:00:00" }), NOW)).toBe("look");
  expect(standsAt(stands("wet"), NOW)).toBe("wet");
});

test("a joint with a liquid is dried, waited for, looked at", () => {
  expect(said(CLOTH, stands("tight"))).toEqual(["Dried"]);
  expect(said(CLOTH, stands("mended"))).toEqual(["Dried"]);
  const waits = { until: "2026-11-27T10:05:00" };
  expect(said(CLOTH, stands("drying", waits))).toEqual(["Dry at a first look", "It is wet"]);
  // said once, it is not asked again before the wait is over
  expect(said(CLOTH, stands("drying", { ...waits, first_look: true }))).toEqual([null, "It is wet"]);
  expect(said(CLOTH, stands("drying", { until: "2026-11-27T09:59:00" }))).toEqual(["It is dry", "It is wet"]);
  expect(said(CLOTH, stands("wet", { rung: "nip" }))).toEqual(["Done: nip", "It is next door"]);
  expect(said(CLOTH, stands("dry"))).toEqual([null, "Dried again"]);
  // what settles is looked at once more
  expect(said(CLOTH, stands("dry"), true)).toEqual(["Dried again", "It is wet"]);
});

test("a gas is soaped and shows at once", () => {
  expect(said(SOAP, stands("tight"))).toEqual(["No bubbles", "It bubbles"]);
  expect(said(SOAP, stands("mended"))).toEqual(["No bubbles", "It bubbles"]);
  expect(said(SOAP, stands("dry"))).toEqual([null, "It bubbles"]);
  expect(said(SOAP, stands("dry"), true)).toEqual(["No bubbles", "It bubbles"]);
});

test("where air leaks in nothing is wiped: only the joint that leaks is named", () => {
  expect(said(AIR_IN, stands("tight"))).toEqual([null, "It leaks here"]);
  expect(said(AIR_IN, stands("open"))).toEqual([null]);
  expect(said(AIR_IN, stands("wet", { rung: "re-seat" }))).toEqual(["Done: re-seat"]);
  expect(said(AIR_IN, stands("mended"))).toEqual([null, "It leaks here"]);
  expect(said(AIR_IN, stands("mended", { held: true }))).toEqual(["It holds now", "It leaks here"]);
  expect(said(AIR_IN, stands("dry"), true)).toEqual([null, "It leaks here"]);
});
