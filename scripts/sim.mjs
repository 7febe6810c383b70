// npm run sim -- decisions | fit: see scripts/sim/main.ts.
import { installPackages, run } from "./prepare.mjs";

installPackages();
run("npx", ["tsx", "scripts/sim/main.ts", ...process.argv.slice(2)]);
