import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // Fonts stay files of their own: the pages may load nothing inline.
  build: { assetsInlineLimit: 0, emptyOutDir: false, target: "es2022" },
  server: { proxy: { "/api": "http://127.0.0.1:7655" } },
});
