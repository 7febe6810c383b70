import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

export default defineConfig({
  root: "web",
  plugins: [
    react(),
    tailwindcss(),
    // The built application stays on the device, so that an open check survives a reload without a line.
    VitePWA({
      injectRegister: null,
      manifest: false,
      registerType: "autoUpdate",
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
  ],
  // The chart engine is large and comes only when a chart is shown.
  build: { outDir: "../dist", emptyOutDir: true, target: "es2022", chunkSizeWarningLimit: 700 },
  worker: { format: "es" },
  server: { port: 4311, proxy: { "/api": "http://127.0.0.1:4310" } },
});
