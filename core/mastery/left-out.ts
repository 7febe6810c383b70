import { type GivenAnswer, kindNames } from "#core/ledger";
import { isHeard } from "./heard.ts";

/** An answer that is in the log and not in what is believed, and why. */
export interface LeftOut {
  readonly answer: GivenAnswer;
  /** In words for the teacher. */
  readonly why: string;
}

/**
 * The answers that say nothing of a child: of items that this version cannot read, and from before the school's first day,
 * which a device with a wrong clock makes. They stay in the log.
 * @param firstDay as `2025-09-01`; empty where no one knows
 */
export function leftOutOf(answers: readonly GivenAnswer[], firstDay: string): readonly LeftOut[] {
  return answers.flatMap((answer): LeftOut[] => {
    if (answer.day < firstDay) return [{ answer, why: `marked on a day before the school's first, ${firstDay}` }];
    if (!isHeard(answer)) return [{ answer, why: `“${answer.item}” is no item of ${kindNames[answer.kind]}` }];
    return [];
  });
}
