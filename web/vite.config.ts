import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";
import vue from "@vitejs/plugin-vue";
import ElementPlus from "unplugin-element-plus/vite";
import { defineConfig, type Plugin } from "vite";

/** The API docs page of the service uses these two files; they ship with the page. */
function apiDocsAssets(): Plugin {
  return {
    name: "api-docs-assets",
    apply: "build",
    generateBundle() {
      for (const name of ["swagger-ui-bundle.js", "swagger-ui.css"]) {
        const source = readFileSync(fileURLToPath(new URL(`./node_modules/swagger-ui-dist/${name}`, import.meta.url)));
        this.emitFile({ type: "asset", fileName: `api-docs/${name}`, source });
      }
    },
  };
}

/** Files whose kind compresses well; fonts and pictures are compressed already. */
const TEXT = new Set([".js", ".css", ".html", ".svg", ".json", ".txt"]);
/** Smaller files fit into one packet either way. */
const LEAST_BYTES = 1400;

/** Puts a compressed one beside each larger file of text, so that the service has nothing to compress. */
function compressed(): Plugin {
  return {
    name: "compressed",
    apply: "build",
    writeBundle({ dir = "" }) {
      for (const name of readdirSync(dir, { recursive: true, encoding: "utf8" })) {
        const file = join(dir, name);
        if (!TEXT.has(extname(name)) || statSync(file).size < LEAST_BYTES) continue;
        writeFileSync(`${file}.gz`, gzipSync(readFileSync(file), { level: 9 }));
      }
    },
  };
}

export default defineConfig({
  plugins: [vue(), ElementPlus({}), apiDocsAssets(), compressed()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: { target: "es2022", chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:8137" } },
});
