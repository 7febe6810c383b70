import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { defaultSettings, sectionOf } from "#core/checks";
import { startingWeights } from "#core/groups";
import { shippedRoutines, USUAL } from "#core/plans";
import type { Dealt } from "./checks/deal.ts";
import { jobsHere, poolOfJobs } from "./frame/jobs.ts";
import { HttpProblem } from "./frame/problem.ts";
import { type Jobs, jobTable } from "./jobs.ts";
import { readShipped } from "./shipped.ts";

const data = join(import.meta.dirname, "../data");
const entry = pathToFileURL(join(import.meta.dirname, "jobs-thread.ts"));
const taught = "s=s a=a t=t p=p i=i n=n m=m d=d g=g o=o c=k k=k ck=k e=e u=u r=r h=h b=b f=f l=l".split(" ");

function dealt(children: number, own: Dealt["words"]["own"] = []): Dealt {
  const from = {
    taught,
    recent: taught.slice(-4),
    exceptionWords: ["the", "to"],
    recentExceptionWords: [],
    secure: new Set(["s=s", "a=a"]),
    age: 12 as const,
    last: new Map([["p=p", "none" as const]]),
  };
  const sections = [
    { ...sectionOf("card", { scope: "due" }), picked: [] },
    { ...sectionOf("words", { most: 4 }), picked: [] },
    { ...sectionOf("paper", { scope: "recent" }), picked: [] },
  ] as unknown as Dealt["sections"];
  return {
    words: { version: `${own.length}`, own, ages: [], units: [] },
    settings: defaultSettings,
    sections,
    children: Array.from({ length: children }, (_, at) => ({ seed: at + 1, from: [from, from, from] })),
    together: [null, null, from],
  };
}

const toFill = {
  words: { version: "0", own: [], ages: [], units: [] },
  common: {
    known: taught.filter((gpc) => gpc !== "g=g"),
    wholes: ["the"],
    unsteady: ["p=p"],
    needed: ["g=g"],
    age: 12 as const,
    children: [],
  },
  targets: ["g=g"],
  aims: [],
  ...{
    ...{
      wish: null,
      second: null,
      focus: null,
      besides: [],
      ways: defaultSettings,
      today: "2026-11-23",
      heldOn: "2026-11-23",
      past: [],
    },
    weights: startingWeights,
    said: [],
    hadLately: [],
    missedWords: [],
    mixedSounds: [],
  },
  routine: shippedRoutines[USUAL],
};

describe("jobs on threads of their own", () => {
  let pool: Jobs;
  beforeAll(() => {
    pool = poolOfJobs<typeof jobTable>({ entry, workerData: { data }, threads: 1, waiting: 1 });
  });
  afterAll(() => pool.close());

  it("compute what they compute on this thread, twice the same, and another seed another deal", async () => {
    const here: Jobs = jobsHere(jobTable, readShipped(data));
    const there = await pool.run("deal", dealt(3), 5);
    expect(there).toEqual(await here.run("deal", dealt(3), 5));
    expect(await pool.run("deal", dealt(3), 5)).toEqual(there);
    expect(there.map((parts) => parts.map((part) => part.items.length > 0))).toEqual(
      Array(3).fill([true, true, true]),
    );
    expect(there.map((parts) => (parts[2]?.setup as { version?: string } | undefined)?.version)).toEqual([
      "A",
      "B",
      "A",
    ]);
    expect(await pool.run("deal", dealt(3), 6)).not.toEqual(there);
    expect(await pool.run("fillSession", toFill, 3)).toEqual(await here.run("fillSession", toFill, 3));
  });

  it("take the words as the school splits them", async () => {
    const read = async (words: Dealt["words"]) => {
      const done = await pool.run("fillSession", { ...toFill, words }, 3);
      return "plan" in done ? (done.plan.parts.find((part) => part.kind === "readWords")?.items ?? []) : [];
    };
    const usual = await read(toFill.words);
    const [word = ""] = usual;
    // Taken for one spelling that no one was taught, the word is none of this group's any more.
    const ours = await read({ version: "own", own: [{ text: word, units: [`${word}=igh`] }], ages: [], units: [] });
    expect(usual.length).toBeGreaterThan(4);
    expect(ours).not.toContain(word);
    expect(ours.length).toBeGreaterThan(4);
    expect(await read(toFill.words)).toEqual(usual);
  });

  it("tell how far they are, in order, to the end", async () => {
    const told: number[] = [];
    await pool.run("deal", dealt(4), 1, { tell: (share) => told.push(share) });
    expect(told).toEqual([0.25, 0.5, 0.75, 1]);
  });

  it("are cancelled while they run and while they wait, and the pool goes on", async () => {
    const [first, second] = [new AbortController(), new AbortController()];
    const running = pool.run("deal", dealt(60), 1, {
      signal: first.signal,
      tell: () => first.abort(new Error("gone")),
    });
    const waiting = pool.run("deal", dealt(1), 1, { signal: second.signal });
    second.abort(new Error("gone too"));
    await expect(waiting).rejects.toThrow("gone too");
    await expect(running).rejects.toThrow("gone");
    await expect(pool.run("deal", dealt(1), 1, { signal: first.signal })).rejects.toThrow("gone");
    expect(await pool.run("deal", dealt(2), 1)).toHaveLength(2);
  });

  it("are refused in a sentence when too many wait", async () => {
    const many = [1, 2, 3, 4].map((seed) => pool.run("deal", dealt(2), seed));
    const ended = await Promise.allSettled(many);
    const refused = ended.flatMap((one) => (one.status === "rejected" ? [one.reason] : []));
    expect(refused.length).toBeGreaterThan(0);
    for (const reason of refused) {
      expect(reason).toBeInstanceOf(HttpProblem);
      expect(reason).toMatchObject({ status: 503, detail: expect.stringContaining("try again") });
    }
    expect(ended.filter((one) => one.status === "fulfilled").length).toBeGreaterThan(0);
  });

  it("throw what went wrong in them", async () => {
    await expect(pool.run("deal", { ...dealt(1), sections: [{ kind: "nothing" }] as never }, 1)).rejects.toThrow();
    await expect(pool.run("none" as never, undefined as never, 1)).rejects.toThrow("There is no job none");
  });
});

it("choose a session's target, where none is asked for, by what it opens for these children", async () => {
  const here: Jobs = jobsHere(jobTable, readShipped(data));
  const known = [..."satpinmdgockeurhbfljvw"].map((letter) => `${letter}=${letter === "c" ? "k" : letter}`);
  const chances = [...known.map((gpc) => [gpc, 0.95] as const), ["dd=d", 0.2] as const, ["ee=ee", 0.2] as const];
  const needs = [["dd=d", 0.8] as const, ["ee=ee", 0.8] as const];
  const common = {
    known,
    wholes: ["the"],
    unsteady: [],
    needed: ["dd=d", "ee=ee"],
    age: 12 as const,
    children: [{ needs, chances, fades: [], next: [], id: "ada", name: "Ada M.", reads: known }],
  };
  const wanted = { ...toFill, common, targets: ["dd=d", "ee=ee"] };
  const filled = await here.run("fillSession", wanted, 1);
  expect(filled).toMatchObject({ plan: { target: "ee=ee" } });
  // What the group puts off waits; what it pins comes first.
  const said = async (how: "pinned" | "later", gpc: string) =>
    here.run("fillSession", { ...wanted, said: [{ gpc, how }] }, 1);
  expect(await said("later", "ee=ee")).toMatchObject({ plan: { target: "dd=d" } });
  expect(await said("pinned", "dd=d")).toMatchObject({ plan: { target: "dd=d" } });
  expect(await here.run("fillSession", { ...wanted, wish: "dd=d" }, 1)).toMatchObject({ plan: { target: "dd=d" } });
});
