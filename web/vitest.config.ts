import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vitest/config";

const ALL = "src/**/*.test.ts";
/**
 * Tests that put something else in the place of a module, of the window or of time need modules of their own, in a
 * process of their own. All others share theirs, which spares them most of their time.
 */
const ALONE = /vi\.mock\(|vi\.stubGlobal\(|withWindow|useFakeTimers/;
const alone = readdirSync("src", { recursive: true, encoding: "utf8" })
  .filter((path) => path.endsWith(".test.ts") && ALONE.test(readFileSync(`src/${path}`, "utf8")))
  .map((path) => `src/${path}`);

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    setupFiles: ["src/testing/setup.ts"],
    projects: [
      { extends: true, test: { name: "together", include: [ALL], exclude: alone, isolate: false } },
      { extends: true, test: { name: "alone", include: alone } },
    ],
  },
});
