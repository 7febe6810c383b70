import { expect, test } from "vitest";
import { dice } from "#core/checks";
import { findSound } from "#core/phonics";
import { answerCard, type Temper, tempers } from "./index.ts";

function run(temper: Temper, gpc: string, learned: number, weeks = 0) {
  const from = dice(5);
  return Array.from({ length: 600 }, () => answerCard(temper, gpc, learned, weeks, from));
}
const share = (replies: ReturnType<typeof run>, test: (reply: ReturnType<typeof run>[number]) => boolean) =>
  replies.filter(test).length / replies.length;

test("learned comes right, not learned does not", () => {
  for (const temper of [tempers.steady, tempers.forgetful, tempers.quiet]) {
    expect(
      share(run(temper, "ai=ai", 1), (reply) => reply.outcome === "right" || reply.outcome === "slow"),
    ).toBeGreaterThan(0.85);
    expect(
      share(run(temper, "ai=ai", 0), (reply) => reply.outcome === "right" || reply.outcome === "slow"),
    ).toBeLessThan(0.25);
  }
});
test("each temper shows", () => {
  const missed = (temper: Temper) => share(run(temper, "b=b", 1), (reply) => reply.outcome === "wrong");
  expect(missed(tempers.lookAlikes)).toBeGreaterThan(4 * missed(tempers.steady));
  expect(share(run(tempers.slowAndRight, "a=a", 1), (reply) => reply.outcome === "slow")).toBeGreaterThan(0.4);
  expect(share(run(tempers.quiet, "ai=ai", 0), (reply) => reply.outcome === "none")).toBeGreaterThan(0.5);
  expect(share(run(tempers.guesser, "ai=ai", 0), (reply) => reply.outcome === "wrong")).toBeGreaterThan(0.6);
  expect(share(run(tempers.forgetful, "ai=ai", 1, 8), (reply) => reply.outcome === "right")).toBeLessThan(0.6);
});
test("only a wrong reply has something heard, and it is a sound", () => {
  for (const reply of run(tempers.lookAlikes, "d=d", 0.4)) {
    if (reply.outcome === "wrong") expect(findSound(reply.heard ?? "")).toBeDefined();
    else expect(reply.heard).toBeNull();
  }
});
