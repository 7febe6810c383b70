import { describe, expect, test } from "vitest";
import { planChanges, type SessionPart } from "./index.ts";

const part = (kind: SessionPart["kind"], items: readonly string[] = [], more: Partial<SessionPart> = {}) => ({
  ...{ kind, items, minutes: 2, how: "" },
  ...more,
});
const cards = (each: Record<string, readonly string[]>) =>
  part("revisit", [], { each: Object.entries(each).map(([childId, items]) => ({ childId, items })) });
const plan = {
  target: "ai=ai",
  parts: [cards({ ada: ["sh=sh"], ben: ["ee=ee"] }), part("teach", ["ai=ai"]), part("readWords", ["rain", "tail"])],
};
const nameOf = (id: string) => ({ ada: "Ada M.", ben: "Ben T." })[id] ?? "";
const says = (after: Partial<typeof plan> & { focus?: readonly string[] }) =>
  planChanges(plan, { ...plan, ...after }, nameOf);

describe("what another plan would bring", () => {
  test("nothing where nothing differs but an order", () => {
    expect(says({})).toEqual([]);
    expect(says({ parts: plan.parts.with(2, part("readWords", ["tail", "rain"])) })).toEqual([]);
  });
  test("what it is about: another spelling, what is no spelling, review alone", () => {
    expect(says({ target: "ay=ai" })).toEqual(["ay in place of ai."]);
    expect(says({ focus: ["blend CCVC"] })[0]).toBe("blending a cluster at the start in place of ai.");
    expect(says({ parts: plan.parts.filter(({ kind }) => kind !== "teach") })).toEqual([
      "review alone in place of ai.",
      "Teach is left out.",
    ]);
  });
  test("each child's cards that come and go, by name", () => {
    expect(says({ parts: plan.parts.with(0, cards({ ada: ["sh=sh", "th=th", "ng=ng"], ben: [] })) })).toEqual([
      "Ada M.: th and ng come to the cards.",
      "Ben T.: ee goes.",
    ]);
  });
  test("words that are others, parts that come in", () => {
    expect(says({ parts: plan.parts.with(2, part("readWords", ["rain", "paid"])) })).toEqual([
      "1 of 2 words are others.",
    ]);
    expect(says({ parts: [...plan.parts, part("chain", ["sip", "ship"])] })).toEqual([
      "Chain comes in.",
      "2 of 4 words are others.",
    ]);
  });
});
