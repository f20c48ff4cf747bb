import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  publicDir: "web/public",
  build: { outDir: "dist", assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  worker: { format: "es" },
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
