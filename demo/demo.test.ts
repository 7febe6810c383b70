import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import {
  addWish,
  importChildren,
  type OrderView,
  planNewSession,
  saveAnswers,
  saveGroup,
  saveReading,
} from "#contract";
import { readOrder } from "#core/order";
import { readLibraryText, scoreReading } from "#core/reading";
import { carriersFrom, readLexicon, readMadeUp, readSaidOfWords, readSentences } from "#core/words";
import { MarlpitLock } from "./index.ts";

const order: OrderView = {
  id: "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1001",
  shipped: true,
  version: 1,
  usedBy: [],
  content: readOrder(readFileSync("data/orders/words-first.txt", "utf8")),
};
const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const stock = {
  lexicon: readLexicon(read("lexicon/lexicon.txt")),
  madeUp: readMadeUp(read("lexicon/made-up.txt")),
  sentences: readSentences(read("sentences.txt")),
  carriers: carriersFrom(readSentences(read("sentences.txt")), readSaidOfWords(read("carriers.txt"))),
  texts: readdirSync("data/texts")
    .sort()
    .map((file) => ({ id: file.slice(3, -3), ...readLibraryText(read(`texts/${file}`)) })),
};
const requests = new MarlpitLock("2026-11-20", order, stock).build();
const bodies = <T>(endpoint: unknown) =>
  requests.filter((request) => request.endpoint === endpoint).map((request) => request.asking.body as T);

test("the same day and seed give the same school, and every request is good by the contract", () => {
  expect(new MarlpitLock("2026-11-20", order, stock).build()).toEqual(requests);
  for (const { endpoint, asking } of requests)
    expect(endpoint.body?.safeParse(asking.body).success ?? true).toBe(true);
});

test("48 children, thousands of answers over eight weeks, four groups, sessions past and to come", () => {
  expect(bodies<{ children: unknown[] }>(importChildren)[0]?.children).toHaveLength(48);
  const answers = bodies<{ answers: { markedAt: string; outcome: string; day: string; kind?: string }[] }>(
    saveAnswers,
  ).flatMap((body) => body.answers);
  expect(answers.length).toBeGreaterThan(4000);
  const read = bodies<{ text: string; marks: []; stoppedAt: null; ms: number }>(saveReading);
  expect(read.length).toBeGreaterThan(30);
  for (const reading of read) expect(scoreReading(reading).accuracy).toBeGreaterThan(50);
  const kinds = new Set(answers.map((answer) => answer.kind).filter(Boolean));
  expect([...kinds].sort()).toEqual(["card", "dictation", "exception", "listen", "paper", "words", "write"]);
  expect(answers.every((answer) => answer.markedAt < "2026-11-20")).toBe(true);
  expect(answers.every((answer) => new Date(answer.day).getUTCDay() % 6 !== 0)).toBe(true);
  const right = answers.filter((answer) => answer.outcome === "right").length / answers.length;
  expect(right).toBeGreaterThan(0.5);
  expect(right).toBeLessThan(0.9);
  expect(
    new Set(
      requests
        .filter((request) => request.endpoint === saveGroup)
        .map((request) => (request.asking.params as { id: string }).id),
    ).size,
  ).toBe(4);
  const days = bodies<{ heldOn: string }>(planNewSession).map((body) => body.heldOn);
  expect(days.some((day) => day < "2026-11-20")).toBe(true);
  expect(days.some((day) => day >= "2026-11-20")).toBe(true);
});

test("groups tell a story: no one works on doubled letters alone, one child left, one is new, two are apart, one wish cannot be", () => {
  const saved = requests.filter((request) => request.endpoint === saveGroup);
  const states = saved.map(
    ({ asking }) => asking.body as { name: string; members: { childId: string }[]; targets: string[] },
  );
  for (const { targets } of states)
    expect(
      targets.some((gpc) => !/^(.)\1=/.test(gpc)),
      targets.join(" "),
    ).toBe(true);
  const last = (name: string) => states.filter((state) => state.name === name);
  const [first, second] = last("Kingfishers");
  const gone = first?.members.filter(({ childId }) => !second?.members.some((one) => one.childId === childId));
  expect(gone).toHaveLength(1);
  expect(bodies<{ kind: string }>(addWish).map(({ kind }) => kind)).toEqual([
    "apart",
    "together",
    "together",
    "apart",
  ]);
});
