import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { type Plugin, defineConfig } from "vite";

/** Writes the service worker with the names of the files that this build is of: those it keeps, and by which it is another version. */
function serviceWorker(): Plugin {
  return {
    name: "service-worker",
    apply: "build",
    generateBundle(_options, bundle) {
      const files = Object.keys(bundle)
        .filter((f) => f.startsWith("assets/"))
        .sort()
        .map((f) => `/${f}`);
      const version = createHash("sha256").update(files.join()).digest("hex").slice(0, 12);
      const source = readFileSync("sw/sw.js", "utf8")
        .replace("= FILES", `= ${JSON.stringify(["/", "/icon.svg", ...files])}`)
        .replace("= VERSION", `= "${version}"`);
      this.emitFile({ type: "asset", fileName: "sw.js", source });
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), serviceWorker()],
  // Fonts stay files of their own: the pages may load nothing inline.
  build: { assetsInlineLimit: 0, emptyOutDir: false, target: "es2022" },
  server: { proxy: { "/api": "http://127.0.0.1:7655" } },
});
