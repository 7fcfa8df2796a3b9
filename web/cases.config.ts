import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

/** Builds the painter of case files as one script, into the folder given with --outDir. */
export default defineConfig({
  publicDir: false,
  // Web pages have no substitute for a server's process.
  define: { "process.env.NODE_ENV": JSON.stringify("production") },
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: {
    target: "es2022",
    minify: false,
    lib: {
      entry: fileURLToPath(new URL("./src/picture/cases.ts", import.meta.url)),
      formats: ["iife"],
      name: "cases",
      fileName: () => "cases.js",
    },
  },
});
