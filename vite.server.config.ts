import { defineConfig } from "vite";

// The server as one file of plain JavaScript: a start need not compile it.
// What stands in node_modules stays there.
export default defineConfig({
  publicDir: false,
  build: { ssr: "server/main.ts", outDir: "dist-server", emptyOutDir: true, target: "node20", minify: false },
});
