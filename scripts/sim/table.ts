import type { Decided, Figures } from "./decisions.ts";
import { spread } from "./measures.ts";

const shown = (figures: readonly number[]) => {
  const { mean, sd } = spread(figures);
  return figures.length > 1 ? `${mean.toFixed(3)} ±${sd.toFixed(3)}` : mean.toFixed(3);
};

const columns: readonly { readonly head: string; readonly of: (figures: Figures) => number }[] = [
  { head: "gaps", of: ({ gaps }) => gaps },
  { head: "F1 model", of: ({ model }) => model.f1 },
  { head: "F1 fit", of: ({ fit }) => fit.f1 },
  { head: "F1 rule of days", of: ({ rule }) => rule.f1 },
  { head: "AUC model", of: ({ model }) => model.auc },
  { head: "AUC fit", of: ({ fit }) => fit.auc },
  { head: "AUC rule", of: ({ rule }) => rule.auc },
  { head: "Brier model", of: ({ model }) => model.brier },
  { head: "Brier fit", of: ({ fit }) => fit.brier },
  { head: "calibration error", of: ({ model }) => model.calibration },
];

/** A table in Markdown: a line a world and week, mean and spread over the seeds. */
export function tableOf(decided: readonly Decided[]): string {
  const lines = new Map<string, Decided[]>();
  for (const one of decided) {
    const name = `${one.world} | ${one.week}`;
    lines.set(name, [...(lines.get(name) ?? []), one]);
  }
  return [
    `| world | week | ${columns.map(({ head }) => head).join(" | ")} |`,
    `|---|---|${columns.map(() => "---").join("|")}|`,
    ...[...lines].map(
      ([name, all]) =>
        `| ${name} | ${columns.map(({ of }) => shown(all.map(({ figures }) => of(figures)))).join(" | ")} |`,
    ),
  ].join("\n");
}

/** Each aim, and by how much it is met at worst over all lines. */
export function aimsOf(decided: readonly Decided[]): string {
  const means = new Map<string, { figures: Figures[]; week: number }>();
  for (const { world, week, figures } of decided) {
    const entry = means.get(`${world} ${week}`) ?? { figures: [], week };
    entry.figures.push(figures);
    means.set(`${world} ${week}`, entry);
  }
  const lines = [...means.values()].map(({ figures, week }) => ({
    week,
    of: (get: (figures: Figures) => number) => spread(figures.map(get)).mean,
  }));
  const atCheck = lines.filter(({ week }) => week === 0);
  const worst = (some: typeof lines, get: (figures: Figures) => number) => Math.max(...some.map(({ of }) => of(get)));
  const least = (week: number) =>
    Math.min(
      ...lines.filter((one) => one.week === week).map(({ of }) => of(({ model, rule }) => model.f1 - rule.f1)),
    );
  return [
    `At the check: F1 below the fit by at most ${worst(atCheck, ({ fit, model }) => fit.f1 - model.f1).toFixed(3)} (aim 0.02)`,
    `AUC below the fit by at most ${worst(atCheck, ({ fit, model }) => fit.auc - model.auc).toFixed(3)} (aim 0.01)`,
    `Brier above the fit by at most ${worst(atCheck, ({ fit, model }) => model.brier - fit.brier).toFixed(3)} (aim 0.01)`,
    `calibration error at most ${worst(lines, ({ model }) => model.calibration).toFixed(3)} (aim 0.05)`,
    `F1 above the rule of days by at least ${least(2).toFixed(3)}, ${least(4).toFixed(3)} and ${least(8).toFixed(3)} after 2, 4 and 8 weeks (aims 0.03, 0.05, 0.05)`,
  ].join("; ");
}
