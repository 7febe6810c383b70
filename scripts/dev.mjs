// npm run dev: the server with reload on change, and Vite with hot reload in front of it on port 4311.
import { installPackages, run } from "./prepare.mjs";

installPackages();
run("npx", ["concurrently", "-k", "-n", "server,web", "KEEN_WEB=none tsx watch server/main.ts", "vite"]);
