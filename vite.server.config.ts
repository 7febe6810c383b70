import { defineConfig } from "vite";

// The server as plain JavaScript: a start need not compile it. What stands in node_modules stays there.
export default defineConfig({
  publicDir: false,
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
