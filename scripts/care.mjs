// npm run backup | restore | move: care for the data of a school. Its work is in server/care/command.ts.
import { join, resolve } from "node:path";
import { build, installPackages, root, run, serverFile } from "./prepare.mjs";

installPackages();
await build();
const folder = resolve(process.env.KEEN_DATA ?? join(root, ".keen-school"));
const [what, target, ...rest] = process.argv.slice(2);
run(process.execPath, [serverFile, "care", what ?? "", ...(target ? [target] : []), ...rest], {
  env: { ...process.env, KEEN_DATA: folder },
});
