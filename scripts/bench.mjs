// npm run bench: ratios against a named baseline in the same run.
import { installPackages, run } from "./prepare.mjs";

installPackages();
run("npx", ["vitest", "bench", "--run"]);
