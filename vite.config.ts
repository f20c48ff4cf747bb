import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { notice } from "./scripts/notice.mjs";

export default defineConfig({
  plugins: [react(), notice({ writes: true })],
  publicDir: "web/public",
  build: { outDir: "dist", assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  worker: { format: "es", plugins: () => [notice()] },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"] },
    },
  },
  server: {
    port: 5173,
    proxy: {
      "/api": {
        target: `http://127.0.0.1:${process.env.API_PORT ?? "4748"}`,
        changeOrigin: true,
        headers: { origin: "" },
      },
    },
  },
});
