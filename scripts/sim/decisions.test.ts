import { expect, test } from "vitest";
import { decide } from "./decisions.ts";
import { aimsOf, tableOf } from "./table.ts";
import { type World, worlds } from "./worlds.ts";

/** Fifty children of one seed: the table in docs/mastery.md has two hundred of six. */
const of = (name: string) => worlds.find((one) => one.name === name) as World;

test.each(["half-lives, middle", "stairs and powers, fast"])(
  "%s: the model tells gaps nearly as the fit to the truth does",
  (name) => {
    const decided = decide(of(name), 9, { classes: 2 });
    expect(decided.map(({ week }) => week)).toEqual([0, 2, 4, 8]);
    const [check, , , last] = decided.map(({ figures }) => figures);
    if (!check || !last) throw new Error("no figures");
    expect(check.model.f1).toBeGreaterThan(check.fit.f1 - 0.04);
    expect(check.model.auc).toBeGreaterThan(check.fit.auc - 0.02);
    expect(check.model.brier).toBeLessThan(check.fit.brier + 0.015);
    expect(check.model.calibration).toBeLessThan(0.06);
    expect(last.model.f1).toBeGreaterThan(last.rule.f1 + 0.05);
    expect(last.model.auc).toBeGreaterThan(last.rule.auc + 0.05);
    const table = tableOf(decided);
    expect(table.split("\n")).toHaveLength(6);
    expect(aimsOf(decided)).toMatch(/^At the check: F1 below the fit by at most -?\d\.\d{3} \(aim 0\.02\)/);
  },
);
