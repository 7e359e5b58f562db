import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    // The content-security policy allows no inlined assets.
    assetsInlineLimit: 0,
    // Which chunk needs which: the weight of a first load is tested.
    manifest: true,
    chunkSizeWarningLimit: 700,
  },
  test: { setupFiles: ["src/tests/setup.ts"] },
  server: { proxy: { "/api": "http://127.0.0.1:8720" } },
});
