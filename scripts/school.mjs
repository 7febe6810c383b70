// npm run school -- add NAME | list: the schools of this server. Its work is in server/people/command.ts.
import { join, resolve } from "node:path";
import { build, installPackages, root, run, serverFile } from "./prepare.mjs";

installPackages();
await build();
const folder = resolve(process.env.KEEN_DATA ?? join(root, ".keen-school"));
run(process.execPath, [serverFile, "school", ...process.argv.slice(2)], {
  env: { ...process.env, KEEN_DATA: folder },
});
