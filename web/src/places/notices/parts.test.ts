import { expect, it } from "vitest";
import { partsOf } from "./parts";

it("reads each table by its title, without its head", () => {
  const page =
    "# Notices\n\nWords.\n\n## One\n\n| Package | V |\n|---|---|\n| a | 1 |\n| b | 2 |\n\n## Two\n\n| P |\n|---|\n";
  expect(partsOf(page)).toEqual([
    {
      title: "One",
      rows: [
        ["a", "1"],
        ["b", "2"],
      ],
    },
    { title: "Two", rows: [] },
  ]);
});
