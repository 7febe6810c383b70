// npm run load: see scripts/load.ts. Installs and builds first what it needs.
import { build, installPackages, run } from "./prepare.mjs";

installPackages();
await build();
run("npx", ["tsx", "scripts/load.ts", ...process.argv.slice(2)]);
