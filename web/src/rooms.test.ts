import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, relative } from "node:path";
import { expect, test } from "vitest";

/** The rooms, the upper ones importing from the lower ones only; places and stages never from each other. */
const ROOMS = ["app", "places stages", "workspace", "instruments", "doc", "ui", "format theme", "api"];
const SRC = __dirname;

const files = readdirSync(SRC, { recursive: true, encoding: "utf8" }).filter(
  (name) => /\.tsx?$/.test(name) && !name.endsWith(".d.ts"),
);
const known = new Set(files);

function importsOf(file: string): string[] {
  const text = readFileSync(join(SRC, file), "utf8");
  return [...text.matchAll(/(?:from|import\()\s*"(\.[^"]+)"/g)].flatMap((found) => {
    const to = normalize(join(dirname(file), found[1] ?? ""));
    return [to, `${to}.ts`, `${to}.tsx`].filter((name) => known.has(name));
  });
}

const height = (file: string) => ROOMS.findIndex((rooms) => rooms.split(" ").includes(file.split("/")[0] ?? ""));
/** Each place and each stage is a room of its own. */
const own = (file: string) => (/^(places|stages)\//.test(file) ? file.split("/").slice(0, 2).join("/") : "");

test("every file has a room", () => {
  expect(files.filter((file) => file.includes("/") && height(file) < 0)).toEqual([]);
  expect(files.length).toBeGreaterThan(100);
});

test("imports go downwards, and no place or stage knows another", () => {
  const wrong = files
    .filter((file) => file.includes("/"))
    .flatMap((file) =>
      importsOf(file)
        .filter((to) => height(to) < height(file) || (own(file) !== "" && own(to) !== "" && own(file) !== own(to)))
        .map((to) => `${file} → ${to}`),
    );
  expect(wrong).toEqual([]);
});

test("no file imports itself, however many steps away", () => {
  const settled = new Set<string>();
  const cycles: string[] = [];
  const walk = (file: string, path: string[]) => {
    if (path.includes(file))
      cycles.push([...path.slice(path.indexOf(file)), file].map((name) => relative("", name)).join(" → "));
    if (settled.has(file) || path.includes(file)) return;
    for (const to of importsOf(file)) walk(to, [...path, file]);
    settled.add(file);
  };
  for (const file of files) walk(file, []);
  expect(cycles).toEqual([]);
});
