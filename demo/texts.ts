import { saveText, type TextContentBody } from "#contract";
import { type DemoRequest, request } from "./checks.ts";

/** A text that a teacher of the school wrote, as it was first kept. */
const bunBoat: TextContentBody = {
  title: "The Bun Boat",
  exceptions: [],
  body: [
    "Fen ran the bun boat. It went up and down the cut, and a big red flag on it said BUNS.",
    "Ducks swam to it. Kids ran to it. “A hot bun, Fen!” they said.",
    "Then a dog sat on the bank. It had no cash, but it had a long, thin rod. Fen let it hop on.",
    "“Can you catch a fish with that?” said Fen.",
    "The dog did not fish. It hung the rod up on the deck, and on the end of the rod it hung a bun.",
    "Swish went the bun, left and right. The ducks went mad. They led all the kids to the bun boat.",
  ].join("\n\n"),
  questions: [
    {
      kind: "what",
      depth: "found",
      ask: "What did the dog have?",
      answers: ["a long, thin rod", "a rod"],
      where: "it had a long, thin rod",
    },
    {
      kind: "why",
      depth: "between",
      ask: "Why did the dog hang a bun on the rod?",
      answers: ["to bring the ducks and the kids to the boat", "so that the ducks went mad"],
      where: "They led all the kids to the bun boat.",
    },
  ],
  words: [{ word: "rod", means: "a long stick to fish with" }],
};

/** The end that was put to it a day later. */
const withItsEnd: TextContentBody = {
  ...bunBoat,
  body: `${bunBoat.body}\n\nBy lunch the last bun was the bun on the rod. Fen let the dog have it.`,
  questions: [
    ...bunBoat.questions,
    {
      kind: "who",
      depth: "found",
      ask: "Who had the last bun?",
      answers: ["the dog"],
      where: "Fen let the dog have it.",
    },
  ],
};

/** The school's own text, in two versions. `day` is a school day, `2026-11-12`. */
export function textRequests(id: string, day: string, savedBy: string): readonly DemoRequest[] {
  return [bunBoat, withItsEnd].map((content, version) =>
    request(saveText, {
      params: { id },
      body: { content, version, savedAt: `${day}T15:${version === 0 ? "10" : "40"}:00.000Z`, savedBy },
    }),
  );
}

/** What adults noted beside readings. */
export const readingNotes: readonly string[] = [
  "A finger under the line helped.",
  "Tired after swimming.",
  "Guesses longer words from the first letter.",
  "Laughed at the end; asked to read it again.",
  "Reads on over full stops.",
  "Looked at me after every word.",
];
