import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import {
  type Ask,
  blockIds,
  defaultSettings,
  dice,
  kinds,
  planCheck,
  type Section,
  sectionOf,
  tasks,
} from "#core/checks";
import { allOutcomes, isRight, kindIds, marksIn, takesHeard } from "#core/ledger";
import { readOrder, taughtUpTo } from "#core/order";
import { readLexicon, readMadeUp, readSentences } from "#core/words";
import { answerItem, type ItemReply, type Temper, tempers } from "./index.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = readLexicon(read("lexicon/lexicon.txt"));
const order = readOrder(read("orders/words-first.txt"));
const taught = taughtUpTo(order, "s18");
const ask: Omit<Ask, "section"> = {
  lexicon,
  madeUp: readMadeUp(read("lexicon/made-up.txt")),
  sentences: readSentences(read("sentences.txt")),
  compounds: readSentences(read("compounds.txt")),
  settings: defaultSettings,
  taught,
  recent: taught.slice(-6),
  exceptionWords: ["the", "was", "said", "come", "some", "you", "they"],
  recentExceptionWords: ["they"],
  secure: new Set(),
  last: new Map(),
  seed: 4,
};
const plans = Object.fromEntries(
  kindIds.map((kind) => [
    kind,
    planCheck({
      ...ask,
      section: {
        ...sectionOf(kind, { scope: "all", most: 12 }),
        blocks: blockIds,
        tasks,
        cases: "both",
      } as unknown as Section,
    }),
  ]),
) as Record<(typeof kindIds)[number], ReturnType<typeof planCheck>>;

function play(kind: (typeof kindIds)[number], temper: Temper, learned = 0.9, seed = 3): ItemReply[] {
  const from = dice(seed);
  const { items, setup } = plans[kind];
  const reader = { temper, learned: () => learned, weeksAway: () => 1, lexicon };
  return items.map((item) => answerItem(kind, { item, reader, setup, seed: 4, from }));
}
const share = (replies: readonly ItemReply[], test: (reply: ItemReply) => boolean) =>
  replies.filter(test).length / replies.length;

describe.each(kindIds)("%s", (kind) => {
  const outcomes = new Set(
    [kind, ...marksIn(kind)]
      .flatMap((of) => kinds[of].pad(defaultSettings))
      .flatMap((place) => [place.outcome, ...(place.held ? [place.held.outcome] : [])]),
  );
  test("every kind of reader gives answers that the kind takes, the same for the same seed", () => {
    for (const temper of Object.values(tempers)) {
      const replies = play(kind, temper);
      expect(replies).toHaveLength(plans[kind].items.length);
      expect(play(kind, temper)).toEqual(replies);
      for (const { outcome, heard, ms } of replies) {
        expect(allOutcomes).toContain(outcome);
        expect([...outcomes, "wrong", "slow"]).toContain(outcome);
        if (!takesHeard(outcome)) expect(heard).toBeNull();
        if (ms !== null) expect(ms).toBeGreaterThan(100);
      }
    }
  });
  test("who learned more gets more right", () => {
    if (kind === "names" || kind === "listen") return;
    const right = (learned: number) =>
      share(
        [1, 2, 3, 4].flatMap((seed) => play(kind, tempers.steady, learned, seed)),
        ({ outcome }) => isRight(outcome),
      );
    expect(right(1)).toBeGreaterThan(right(0.1) + 0.1);
  });
});

test("who is weak at blending gets the sounds right and the word wrong", () => {
  const blends = (temper: Temper) =>
    share(
      [1, 2, 3].flatMap((seed) => play("words", temper, 1, seed)),
      ({ outcome }) => outcome === "blend",
    );
  expect(blends(tempers.weakBlender)).toBeGreaterThan(3 * blends(tempers.steady));
});
