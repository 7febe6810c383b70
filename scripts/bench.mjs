// npm run bench: ratios against a named baseline in the same run. `npm run bench -- pages`: what each page costs.
// `npm run bench -- teach`: how soon a mark is seen while a session is taught.
// `npm run bench -- schools`: what a school costs among two hundred on a server.
import { build, installPackages, run } from "./prepare.mjs";

const [what, ...rest] = process.argv.slice(2);
installPackages();
if (what === "teach") {
  await build();
  run("npx", ["tsx", "scripts/bench-teach.ts", ...rest]);
} else if (what === "pages") {
  await build();
  run("npx", ["tsx", "scripts/bench-pages.ts", ...rest]);
} else if (what === "schools") {
  await build();
  run("npx", ["tsx", "scripts/schools.bench.ts", ...rest]);
} else run("npx", ["vitest", "bench", "--run", "--project", "embedded", ...(what ? [what, ...rest] : [])]);
