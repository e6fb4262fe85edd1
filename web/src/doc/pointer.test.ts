import { expect, test } from "vitest";
import type { Change, Line } from "../api/types";
import { applyChanges, idOf } from "./pointer";

const line = {
  name: "feed",
  spans: [
    {
      id: "s1",
      end_a: { fitting: "plain" },
      rows: [
        { id: "r1", text: "1" },
        { id: "r2", text: "2" },
      ],
    },
    { id: "h1", length: "50" },
  ],
  joints: [{ union: "" }, { union: "sleeve" }],
  tags: ["a", "b"],
} as unknown as Line;
const after = (...told: [string, unknown][]) =>
  applyChanges(
    line,
    told.map(([path, value]) => ({ path, value }) as unknown as Change),
  ) as unknown as Record<string, unknown>;

test("a field is set where it stands, and nothing else is copied", () => {
  const made = after(["/spans/s1/end_a/fitting", "double-45"]);
  const spans = made["spans"] as Record<string, unknown>[];
  expect(spans[0]?.["end_a"]).toEqual({ fitting: "double-45" });
  expect(spans[0]?.["rows"]).toBe((line.spans[0] as unknown as Record<string, unknown>)["rows"]);
  expect(spans[1]).toBe(line.spans[1]);
  expect((line.spans[0] as unknown as { end_a: object }).end_a).toEqual({ fitting: "plain" });
});

test("a row is found by its id, and only that one is changed", () => {
  const spans = after(["/spans/s1/rows/r2/text", "9"])["spans"] as { rows: object[] }[];
  expect(spans[0]?.rows).toEqual([
    { id: "r1", text: "1" },
    { id: "r2", text: "9" },
  ]);
});

test("what has no id is found by its place; one past the end adds to the list", () => {
  expect(after(["/tags/1", "c"])["tags"]).toEqual(["a", "c"]);
  expect(after(["/tags/2", "c"])["tags"]).toEqual(["a", "b", "c"]);
  expect(after(["/tags/7", "c"])["tags"]).toEqual(["a", "b"]);
});

test("a joint is named by the span before it", () => {
  expect(after(["/joints/h1/union", "flared"])["joints"]).toEqual([{ union: "" }, { union: "flared" }]);
  expect(after(["/joints/s1/union", "flared"])["joints"]).toEqual([{ union: "flared" }, { union: "sleeve" }]);
  // a span of the name of a joint's list is none
  expect(after(["/tags/s1", "c"])["tags"]).toEqual(["a", "b"]);
});

test("changes follow one another; where nothing was, it is made", () => {
  const made = after(["/name", "return"], ["/price/own", 4], ["", line]);
  expect(made).toBe(line);
  expect(after(["/name", "return"], ["/price/own", 4])).toMatchObject({ name: "return", price: { own: 4 } });
});

test("only text is an id", () => {
  expect([idOf({ id: "a" }), idOf({ id: 1 }), idOf({}), idOf(null), idOf("a"), idOf(undefined)]).toEqual([
    "a",
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
});
