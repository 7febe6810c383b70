// npm run sim -- decisions [SEEDS] [CLASSES]: how well the model tells gaps, on simulated classes whose truth is known.
// npm run sim -- ask [SEED] [CLASSES]: how much of it a check tells that chooses what to ask, beside the full deck.
// npm run sim -- loop [SEEDS]: eight weeks of sessions, groups and targets chosen in five ways, and what has stayed four weeks later; then `plans`.
// npm run sim -- plans [SEEDS]: 24 and 48 sessions planned one by one, as a block of weeks, and by the truth.
// npm run sim -- groups [CLASSES] [CHILDREN]: how far proposed groups are from the best there is, in classes with mixed limits.
// npm run sim -- week [SCHOOLS]: timetables of made-up schools, beside one written by hand, and how good any could be.
// npm run sim -- fit [ROUNDS]: looks for parameters that tell them better, on classes of other seeds; prints what it finds.
import { askedTable, compareAsking } from "./ask.ts";
import { decide } from "./decisions.ts";
import { fitParameters } from "./fit.ts";
import { compareGroups, groupsTable } from "./groups.ts";
import { loopTable, playLoop } from "./loop.ts";
import { plansTable, playPlans } from "./plans.ts";
import { aimsOf, tableOf } from "./table.ts";
import { compareWeeks, weeksTable } from "./week.ts";
import { type World, worlds } from "./worlds.ts";

const [what = "decisions", first, second] = process.argv.slice(2);
if (what === "decisions") {
  const [seeds, classes] = [Number(first ?? 6), Number(second ?? 8)];
  const decided = worlds.flatMap((world) => {
    console.error(`${world.name} …`);
    return Array.from({ length: seeds }, (_, at) => decide(world, at + 1, { classes })).flat();
  });
  console.log(`${classes * 25} children in each of ${worlds.length} worlds, seeds 1 to ${seeds}.\n`);
  console.log(tableOf(decided));
  console.log(`\n${aimsOf(decided)}.`);
} else if (what === "ask") {
  const [seed, classes] = [Number(first ?? 1), Number(second ?? 8)];
  const asked = worlds
    .filter(({ name }) => name.endsWith("middle"))
    .flatMap((world) => compareAsking(world, seed, { classes }));
  console.log(`${classes * 25} children in each world, seed ${seed}.\n`);
  console.log(askedTable(asked));
} else if (what === "loop" || what === "plans") {
  const seeds = Number(first ?? 6);
  const sharp = worlds.filter(({ name }) => !name.includes("blurred"));
  const played = <T>(play: (world: World, seed: number) => readonly T[]): T[] =>
    sharp.flatMap((world) => {
      console.error(`${world.name} …`);
      return Array.from({ length: seeds }, (_, at) => play(world, at + 1)).flat();
    });
  console.log(`A class of 25 in each of ${sharp.length} worlds, seeds 1 to ${seeds}; mean ± spread over seeds.\n`);
  if (what === "loop") console.log(`${loopTable(played(playLoop))}\n`);
  console.log(plansTable(played(playPlans)));
} else if (what === "groups") {
  const classes = Number(first ?? 20);
  const lines = await compareGroups(classes, second ? [Number(second)] : undefined);
  console.log(`${classes} classes of each size, groups of 3 to 5, four targets; each limit of a mix in turn.\n`);
  console.log(groupsTable(lines));
} else if (what === "week") {
  const lines = await compareWeeks(Number(first ?? 40));
  console.log("8 groups, 4 adults, 3 rooms, 25 slots; points of wishes that are not kept, 0 is all of them.\n");
  console.log(weeksTable(lines));
} else if (what === "fit") fitParameters({ rounds: Number(first ?? 4) });
else {
  console.error("Say what: decisions, ask, loop, plans, groups, week, or fit.");
  process.exitCode = 1;
}
