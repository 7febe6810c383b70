import { plural } from "#core/saying";
import { readSkill, type Verb } from "./skills.ts";
import { isHigh, type SecureWhen, type Standing, sureness } from "./standing.ts";

const percent = (share: number) => `${Math.min(99, Math.max(1, Math.round(share * 100)))}%`;

/** When a school calls a thing secure, as it follows "secure means". */
export function secureInWords(when: SecureWhen): string {
  switch (when.by) {
    case "model":
      return `a chance of ${when.percent}% or more`;
    case "days":
      return `right at once on the last ${plural(when.days, "day")} on which it was asked`;
    case "share":
      return `${when.percent}% of its last ${plural(when.of, "card")} right at once`;
    case "pass":
      return "in the last whole round of cards without an error";
  }
}

/** What is likely, by what is asked. */
const doing = {
  say: "to be said at sight",
  read: "to be read at sight",
  spell: "to be written right",
  write: "to be written right",
  blend: "to be blended right",
  name: "to be named",
  hear: "to be done",
} as const satisfies Record<Verb, string>;

/** Why a spelling stands as it does, in sentences for a colleague: the chance, what it stands on, and the word laid over it. */
export function whyStanding(standing: Standing, when: SecureWhen): string {
  const { state, chance, low, high, answers, days, misses, skill, missed } = standing;
  const { verb } = readSkill(skill);
  if (state === "not taught") return "Not taught yet in this class, and never asked.";
  if (state === "not checked" && verb !== "say") return "Not asked yet.";
  if (state === "not checked")
    return `${missed ? "Taught on a day on which the child was away" : "Taught"}, and not asked yet. By what else is known of the child, ${percent(chance)} is likely.`;
  const stands = `${percent(chance)} likely ${doing[verb]} today, between ${percent(low)} and ${percent(high)}: ${plural(answers, "answer")} on ${plural(days, "day")}.`;
  return `${stands} ${laidOver(standing, when, misses)}`;
}

function laidOver({ state, chance, gap, judged }: Standing, when: SecureWhen, misses: number): string {
  const secure = secureInWords(when);
  if (judged !== undefined && (state === "secure" || state === "gap"))
    return `A teacher says that it is ${judged ? "known" : "not known"}; that counts until an answer goes against it, and wears off.`;
  switch (state) {
    case "secure":
      return `Secure here means ${secure}.`;
    case "gap":
      return `A gap: surely under a half, after ${plural(misses, "miss", "misses")}.`;
    case "unsteady":
      return `Unsteady: surely over a half, and not secure, which here means ${secure}.`;
    default:
      if (isHigh({ chance }, when))
        return when.by === "model"
          ? "Not sure yet, though likely: one right answer is nothing secure. One more would settle it."
          : `Not sure yet: secure here means ${secure}.`;
      if (gap >= sureness.gap) return "Not sure yet: one slip is never a gap. One more card would say more.";
      return "Not sure yet: it may lie on either side of a half. One more card would say most.";
  }
}
