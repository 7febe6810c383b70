import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { compression } from "vite-plugin-compression2";
import { VitePWA } from "vite-plugin-pwa";

const letters = /(source-sans-3-latin-wght-normal|andika-latin-400-normal)-[\w-]+\.woff2$/;

/** What every page begins with, in small files. */
const base =
  /[\\/]web[\\/](parts[\\/](return-focus|open-sheets|dialog|button|page)|device[\\/](me|settings|outbox|clock|api))\.tsx?$/;

/** The page asks at once for the pieces that `main.ts` reads one after another. */
const piecesAtOnce: Plugin = {
  name: "pieces-at-once",
  transformIndexHtml: {
    order: "post",
    handler(_html, { bundle, chunk }) {
      const wanted = new Set<string>();
      const want = (file: string) => {
        const found = bundle?.[file];
        if (wanted.has(file) || found?.type !== "chunk") return;
        wanted.add(file);
        for (const needed of found.imports) want(needed);
      };
      for (const file of chunk?.dynamicImports ?? []) want(file);
      for (const file of chunk?.imports ?? []) wanted.delete(file);
      // The letters that every page is set in, so that it is not set twice.
      const fonts = Object.keys(bundle ?? {}).filter((file) => letters.test(file));
      const link = (attrs: Record<string, string | boolean>) => ({
        tag: "link",
        attrs: { crossorigin: true, ...attrs },
        injectTo: "head" as const,
      });
      return [
        ...[...wanted].map((file) => link({ rel: "modulepreload", href: `/${file}` })),
        ...fonts.map((file) => link({ rel: "preload", as: "font", type: "font/woff2", href: `/${file}` })),
      ];
    },
  },
};

export default defineConfig({
  root: "web",
  plugins: [
    react(),
    tailwindcss(),
    piecesAtOnce,
    // Pressed once, as small as it gets, instead of at each request.
    compression({ algorithms: ["brotliCompress"], include: /\.(js|css|html|svg)$/, threshold: 1000 }),
    // The built application stays on the device, so that an open check survives a reload without a line.
    VitePWA({
      injectRegister: null,
      // A newer application waits until no one is in the middle of something (web/app/renewal.ts).
      registerType: "prompt",
      manifest: {
        name: "Keen Sapling",
        short_name: "Keen Sapling",
        description: "Checks a child's reading, shows the gaps, groups children by them and plans catch-up sessions.",
        start_url: "/",
        display: "standalone",
        background_color: "#f7f2e7",
        theme_color: "#f7f2e7",
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
          { src: "/icon-cut-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
        ],
      },
      workbox: {
        clientsClaim: true,
        globPatterns: ["**/*.{js,css,html,svg,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
  ],
  // The chart engine is large and comes only when a chart is shown.
  build: {
    outDir: "../dist",
    emptyOutDir: true,
    target: "es2022",
    chunkSizeWarningLimit: 700,
    // The names of all pieces stand in the first one, and chance cannot be pressed.
    rolldownOptions: {
      output: {
        chunkFileNames: "assets/[name]-[hash:7].js",
        // Small pieces that every page begins with come as one: each costs a request with its headers.
        codeSplitting: { groups: [{ name: "base", test: base }] },
      },
    },
  },
  worker: { format: "es" },
  server: { port: 4311, proxy: { "/api": "http://127.0.0.1:4310" } },
});
