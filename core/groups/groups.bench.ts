import { bench, describe } from "vitest";
import { dice, shuffled } from "#core/checks";
import { chooseTargets, type Learner, proposeGroups } from "./index.ts";

const order = Array.from({ length: 130 }, (_, at) => `g${at}=s`);
function learners(count: number): Learner[] {
  const from = dice(1);
  return Array.from({ length: count }, (_, at) => {
    const gaps = new Set(shuffled(order.slice((at % 4) * 12, (at % 4) * 12 + 60), from).slice(0, 12));
    return {
      id: `c${at}`,
      needs: new Map([...gaps].map((gpc) => [gpc, 1])),
      secure: new Set(order.filter((gpc) => !gaps.has(gpc))),
    };
  });
}
const thirty = learners(30);

describe("30 children into groups of 3 to 5", () => {
  bench("baseline: cut the list as it stands, choose targets", () => {
    for (let at = 0; at < 30; at += 5) chooseTargets(thirty.slice(at, at + 5), order, 4);
  });
  bench("proposeGroups", () => {
    proposeGroups({ learners: thirty, order, shape: { by: "size", least: 3, most: 5 }, seed: 1 });
  });
});
