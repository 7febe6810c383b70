import { defineConfig } from "vite";

/** Packages that bring something else than JavaScript, or find their own files beside them: they stay in node_modules. */
const asTheyAre = ["@electric-sql/pglite", "fs-native-extensions", "highs", "pg", "pino", "piscina", "sharp"];

// The server as plain JavaScript, in a few files with the packages it uses: a start need not compile it, nor look for
// hundreds of files.
export default defineConfig({
  publicDir: false,
  ssr: { noExternal: true, external: asTheyAre },
  build: {
    ssr: true,
    rollupOptions: {
      // The server, and what a thread of its jobs starts with.
      input: { main: "server/main.ts", "jobs-thread": "server/jobs-thread.ts" },
      output: { entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
    outDir: "dist-server",
    emptyOutDir: true,
    target: "node20",
    minify: false,
  },
});
