import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import license from "rollup-plugin-license";
import { defineConfig } from "vite";

const OUT = "../src/bendrel/interface";

type Told = { importers: string[]; dynamicImporters: string[]; isEntry: boolean } | null;

/** Which fetched parts of the interface (the first page, a place, a stage) bring a module along. */
function bringers(told: (id: string) => Told) {
  const known = new Map<string, Set<string>>();
  return function of(id: string): Set<string> {
    const before = known.get(id);
    if (before) return before;
    const found = new Set<string>();
    known.set(id, found);
    const seen = new Set([id]);
    for (const one of seen) {
      const info = told(one);
      if (info?.isEntry) found.add("first");
      else if (info?.dynamicImporters.length) found.add(one.endsWith("/board/Board.tsx") ? "first" : one);
      info?.importers.forEach((importer) => seen.add(importer));
    }
    return found;
  };
}

let of: ((id: string) => Set<string>) | null = null;

/** What the board takes is one file, what several other parts take another: a page asks for few files, and the first
 * page for nothing that it does not take. */
function fileOf(id: string, build: { getModuleInfo: (id: string) => Told }) {
  of ??= bringers((one) => build.getModuleInfo(one));
  const parts = of(id);
  return parts.has("first") ? "first" : parts.size > 1 ? "shared" : null;
}

export default defineConfig({
  plugins: [
    react(),
    // what the screens are built with, and on which terms, as the packages themselves say
    license({
      thirdParty: {
        output: {
          file: `${OUT}/notices.json`,
          template: (packages) =>
            JSON.stringify(
              packages.map(({ name, version, license, licenseText, noticeText }) => ({
                name,
                version,
                license,
                text: [licenseText, noticeText].filter(Boolean).join("\n\n"),
              })),
            ),
        },
      },
    }),
  ],
  resolve: {
    // the package names its own development build, which tells of mistakes that types tell of here
    alias: [
      {
        find: /^react-router$/,
        replacement: fileURLToPath(new URL("node_modules/react-router/dist/production/index.mjs", import.meta.url)),
      },
    ],
  },
  build: {
    outDir: OUT,
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      output: { codeSplitting: { includeDependenciesRecursively: false, groups: [{ name: fileOf, debugName: "by who takes it" }] } },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8471" } },
});
