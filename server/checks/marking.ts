import { randomUUID as uuid } from "node:crypto";
import {
  type AnswerBody,
  type CheckView,
  type SectionBody,
  type SittingView,
  saveAnswers,
  startSitting,
} from "#contract";
import { kindAsked, type Section, sectionOf } from "#core/checks";
import { inCheck, type KindId } from "#core/ledger";
import type { TestHouse } from "../testing.ts";

/** Checks as tests begin and mark them; for tests only. */

export const part = (kind: KindId, change: Partial<Section> = {}): SectionBody => sectionOf(kind, change);

export async function begin(
  house: TestHouse,
  childIds: readonly string[],
  sections: readonly SectionBody[],
  startedAt = "2026-11-20T08:00:00.000Z",
): Promise<SittingView> {
  return house.ask(startSitting, {
    body: {
      id: uuid(),
      name: "Check",
      sections: [...sections],
      children: childIds.map((childId, at) => ({ childId, seed: at + 3, checkIds: sections.map(() => uuid()) })),
      startedAt,
    },
  });
}

/** One check of spellings with one child. */
export async function beginOne(
  house: TestHouse,
  childId: string,
  change: Partial<Section> = { scope: "all" },
  startedAt?: string,
): Promise<CheckView> {
  const { checks } = await begin(house, [childId], [part("card", change)], startedAt);
  return checks[0] as CheckView;
}

type Mark =
  | { readonly outcome: "right" | "slow" | "none" | "sounded" }
  | { readonly outcome: "wrong"; readonly heard: string };

export function answerTo(check: CheckView, item: string, mark: Mark, change: Partial<AnswerBody> = {}): AnswerBody {
  return {
    id: uuid(),
    childId: check.childId,
    ...inCheck(kindAsked(check.kind, item), check.id),
    item,
    ms: 800,
    pass: 1,
    tags: [],
    markedAt: "2026-11-20T08:10:00.000Z",
    day: "2026-11-20",
    markedBy: "Ms Harrow",
    ...mark,
    ...("heard" in mark ? { units: null } : {}),
    ...change,
  } as AnswerBody;
}

export function stopOf(check: CheckView, markedAt = "2026-11-20T08:20:00.000Z"): AnswerBody {
  const { childId, id: checkId } = check;
  return {
    id: uuid(),
    childId,
    source: { kind: "check", checkId },
    outcome: "stop",
    why: "done",
    markedAt,
    day: "2026-11-20",
    markedBy: "Ms Harrow",
  };
}

/** Marks every item of a check. */
export async function markAll(
  house: TestHouse,
  check: CheckView,
  markOf: (item: string) => Mark,
  change: Partial<AnswerBody> = {},
): Promise<void> {
  await house.ask(saveAnswers, {
    body: { answers: check.items.map((item) => answerTo(check, item, markOf(item), change)) },
  });
}
