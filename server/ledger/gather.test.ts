import { expect, test } from "vitest";
import type { AnswerBody } from "#contract";
import type { Actor } from "../frame/actor.ts";
import { openLive } from "../frame/live.ts";
import type { School } from "../house.ts";
import { gathering } from "./gather.ts";

const lead: Actor = { schoolId: "s", memberId: null, as: "lead" } as Actor;
const mark = (id: string, childId = "c") => ({ id, childId }) as AnswerBody;

/** A school whose ledger keeps all but marks named `bad`, which fail with everything around them; it takes its time. */
function schoolWith() {
  const batches: string[][] = [];
  const school = {
    together: async (work: () => Promise<unknown>) => {
      await new Promise((done) => setTimeout(done, 5));
      return work();
    },
    afterwards: (tell: () => void) => tell(),
    own: { notTheirs: async (_: Actor, { ids }: { ids: readonly string[] }) => ids.filter((id) => id === "other") },
    ledger: {
      take: async (marks: readonly AnswerBody[]) => {
        batches.push(marks.map(({ id }) => id));
        if (marks.some(({ id }) => id === "bad")) throw new Error("the database broke");
        return { fates: marks.map(({ id }) => ({ fate: "kept", entry: { id } })), bySitting: new Map(), ended: [] };
      },
    },
  } as unknown as School;
  return { school, batches };
}

test("what comes while one transaction waits goes in with it, and each request hears of its own marks", async () => {
  const { school, batches } = schoolWith();
  const gather = gathering(openLive());
  const send = (...marks: AnswerBody[]) => gather({ school, actor: lead, marks, now: new Date() });
  const told = await Promise.all([send(mark("1"), mark("2")), send(mark("3", "other"), mark("4")), send(mark("5"))]);
  expect(batches).toEqual([["1", "2", "4", "5"]]);
  expect(told.map((fates) => fates.map(({ fate }) => fate))).toEqual([
    ["kept", "kept"],
    ["refused", "kept"],
    ["kept"],
  ]);
  expect(await send(mark("6"))).toMatchObject([{ fate: "kept", entry: { id: "6" } }]);
});

test("a request that fails fails alone; the others beside it are kept", async () => {
  const { school, batches } = schoolWith();
  const gather = gathering(openLive());
  const send = (...marks: AnswerBody[]) => gather({ school, actor: lead, marks, now: new Date() });
  const told = await Promise.allSettled([send(mark("1")), send(mark("bad")), send(mark("2"))]);
  expect(told.map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
  expect(batches).toEqual([["1", "bad", "2"], ["1"], ["bad"], ["2"]]);
});
