import type { GivenAnswer } from "#core/ledger";
import { isRight, type KindId } from "#core/ledger";
import { dayNumber, inOrder } from "./days.ts";
import { type FollowWanted, opened, take } from "./follow.ts";
import { heardFrom } from "./heard.ts";
import { chanceOfRight } from "./listen.ts";
import { newMind } from "./mind.ts";

/** What was said of an answer before it was heard, and what it was. */
export interface Foretold {
  /** Of the answer. */
  readonly id: string;
  readonly day: string;
  readonly kind: KindId;
  /** The chance that it would be right, 0 to 1. */
  readonly said: number;
  readonly right: boolean;
}

/** Each answer foretold from those before it. Nothing that comes later is known when one is foretold. */
export function foretell(answers: readonly GivenAnswer[], wanted: FollowWanted): readonly Foretold[] {
  const mind = opened(newMind(wanted.p));
  const found: Foretold[] = [];
  for (const answer of inOrder(answers)) {
    const [heard] = heardFrom(answer, wanted.words);
    // What a teacher says is no answer that could be foretold.
    if (heard && answer.source.kind !== "judgement") {
      const said = chanceOfRight(mind, heard, dayNumber(answer.day), wanted);
      found.push({ id: answer.id, day: answer.day, kind: answer.kind, said, right: isRight(answer.outcome) });
    }
    take(mind, answer, wanted);
  }
  return found;
}
