// npm run screenshots: see scripts/screenshots.ts. Installs and builds first what it needs.
import { build, installPackages, run } from "./prepare.mjs";

installPackages();
await build();
run("npx", ["tsx", "scripts/screenshots.ts", ...process.argv.slice(2)]);
