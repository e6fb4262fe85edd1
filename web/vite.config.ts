import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import license from "rollup-plugin-license";
import { defineConfig } from "vite";

const OUT = "../src/bendrel/interface";

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
  },
  server: { proxy: { "/api": "http://127.0.0.1:8471" } },
});
