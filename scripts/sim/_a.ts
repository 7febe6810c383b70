import { askedTable, compareAsking } from "./ask.ts";
import { worlds } from "./worlds.ts";

const t0 = Date.now();
console.log(
  askedTable([worlds[1]!, worlds[4]!].flatMap((w) => compareAsking(w, 3, { classes: 2 }))),
  Date.now() - t0,
);
