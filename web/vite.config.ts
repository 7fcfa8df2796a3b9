import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
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

export default defineConfig({
  plugins: [vue(), ElementPlus({}), apiDocsAssets()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: { target: "es2022", chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:8137" } },
});
