import { randomUUID as uuid } from "node:crypto";
import { addDays, formatISO, parseISO } from "date-fns";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  closeGroup,
  fixBlockDays,
  getBlock,
  getGrouping,
  getSchool,
  getSession,
  getWeek,
  markTaught,
  planNewSession,
  removeSession,
  reportSession,
  saveGroup,
  setBlockWeeks,
  setGrouping,
  setGroupRoutine,
  setTimetable,
  setWeek,
  startingWeek,
} from "#contract";
import { begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, otters, herons] = [uuid(), uuid(), uuid()];
const members = [uuid(), uuid(), uuid()];
const jo = uuid();
/** What each child misses. */
const missed = [["m=m", "d=d"], ["m=m"], ["m=m", "d=d", "g=g"]];
const today = "2026-10-19";
const later = (days: number) => formatISO(addDays(parseISO(today), days), { representation: "date" });
const block = (id = otters) => house.ask(getBlock, { params: { id } });
const taughtIn = async () => (await block()).sessions.map(({ points }) => points.map(({ gpc }) => gpc));

/** Days and times of a group's sessions: Mondays, Tuesdays and Thursdays. */
const times = [1, 2, 4] as const;

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date(`${today}T08:00:00.000Z`);
  const order = (await house.ask(getSchool, {})).orders[0];
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  const stepId = order?.content.steps[14]?.id ?? "";
  const mark = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: mark });
  for (const [at, id] of members.entries()) {
    await house.ask(addChild, { body: { id, classId, name: `Child ${at}`, note: "" } });
    for (const day of ["2026-10-05", "2026-10-12"]) {
      const { checks } = await begin(house, [id], [part("card")], `${day}T08:00:00.000Z`);
      for (const check of checks)
        await markAll(house, check, (item) => ({ outcome: missed[at]?.includes(item) ? "none" : "right" }), {
          ...{ day, markedAt: `${day}T08:10:00.000Z` },
        });
    }
  }
  for (const [id, name, ids] of [
    [otters, "Otters", members],
    [herons, "Herons", []],
  ] as const)
    await house.ask(saveGroup, {
      params: { id },
      body: {
        ...{ versionId: uuid(), version: 0, name, targets: ["m=m", "d=d"], at: "2026-10-19T07:00:00.000Z", why: "" },
        members: ids.map((childId) => ({ childId, locked: false })),
      },
    });
});
afterAll(() => house.close());

test("without a time in the week days are thought: so many a week, on days of school, and it is told", async () => {
  const { inTheWeek, weeks, sessions, past, remarks } = await block();
  const { grouping } = await house.ask(getGrouping, {});
  expect([inTheWeek, weeks, past]).toEqual([false, 6, []]);
  expect(sessions).toHaveLength(6 * grouping.sessionsAWeek);
  expect(sessions.every(({ from, by, sessionId }) => from === null && by === "tool" && sessionId === null)).toBe(
    true,
  );
  // What all three missed comes first, and everyone is named who needs it.
  expect(sessions[0]?.points).toMatchObject([{ gpc: "m=m", step: "new", way: null }]);
  expect(new Set(sessions[0]?.points[0]?.for)).toEqual(new Set(members));
  expect(sessions.flatMap(({ points }) => points.map(({ gpc }) => gpc))).toContain("d=d");
  expect(remarks).toEqual([]);
  const { remarks: empty } = await block(herons);
  expect(empty[0]).toBe("No one is in this group. Put children into it first.");
  expect((await house.refused(getBlock, { params: { id: uuid() } })).status).toBe(404);
});

test("whoever says at sight what a session teaches is named for the cards alone, on the weeks and in the plan", async () => {
  const id = uuid();
  const session = await house.ask(planNewSession, {
    body: { id, groupId: otters, heldOn: today, target: "d=d", seed: 2 },
  });
  expect(session.plan.cardsOnly).toEqual([members[1]]);
  expect(session.plan.remarks[0]).toBe("Child 1 says at sight what is taught, and comes for the cards alone.");
  const here = (await block()).sessions.find(({ sessionId }) => sessionId === id);
  expect(here?.cardsOnly).toEqual([members[1]]);
  // What all of them miss is for all of them.
  await house.ask(removeSession, { params: { id } });
  expect((await block()).sessions[0]).toMatchObject({ points: [{ gpc: "m=m" }], cardsOnly: [] });
});

test("with times in the week it goes by them, over as many weeks as are asked for; a slot too short is told", async () => {
  const { version: onto, grouping } = await house.ask(getGrouping, {});
  await house.ask(setGrouping, {
    body: { version: onto, grouping: { ...grouping, adults: [{ id: jo, name: "Jo P.", sessions: 9 }] } },
  });
  const week = {
    ...startingWeek,
    slots: times.map((day) => ({ id: `s${day}`, day, from: 540, to: 570 })),
    calendar: {
      terms: [{ name: "Autumn", from: "2026-09-02", to: "2026-12-18" }],
      off: [{ name: "half-term", from: "2026-10-26", to: "2026-10-30" }],
    },
  };
  const version = async () => (await house.ask(getWeek, {})).version;
  await house.ask(setWeek, { body: { version: await version(), week } });
  const placements = times.map((day) => ({
    ...{ groupId: otters, day, from: 540, to: 560, adultId: jo, roomId: null, fixed: false },
  }));
  await house.ask(setTimetable, { body: { version: await version(), from: today, placements } });
  await house.ask(setBlockWeeks, { params: { id: otters }, body: { weeks: 3 } });
  const { inTheWeek, sessions } = await block();
  expect(inTheWeek).toBe(true);
  // The holiday has none, and nothing is lost by it.
  expect(sessions.map(({ on }) => on)).toEqual([0, 1, 3, 14, 15, 17].map(later));
  expect(sessions.every(({ from, minutes }) => from === 540 && minutes === 15)).toBe(true);
  expect((await house.refused(setBlockWeeks, { params: { id: otters }, body: { weeks: 9 } })).status).toBe(422);
  // A routine of thirty minutes in a time of twenty.
  await house.ask(setGroupRoutine, { params: { id: otters }, body: { routine: "mixed" } });
  const long = await block();
  expect(long.remarks[0]).toMatch(/^Its routine takes 30 minutes; the time on Mon 19 Oct has 20\./);
  expect(long.sessions[0]?.points.map(({ gpc }) => gpc)).toEqual(["m=m", "d=d"]);
  await house.ask(setGroupRoutine, { params: { id: otters }, body: { routine: "review" } });
  expect(new Set((await block()).sessions.map(({ points }) => points.length))).toEqual(new Set([0]));
  await house.ask(setGroupRoutine, { params: { id: otters }, body: { routine: "usual" } });
});

test("what a teacher fixes stays, also as review alone, until it is given back; what cannot be is a sentence", async () => {
  const worked = await taughtIn();
  const fix = (days: { on: string; gpcs: string[] | null }[]) => ({ params: { id: otters }, body: { days } });
  await house.ask(
    fixBlockDays,
    fix([
      { on: later(0), gpcs: ["s=s"] },
      { on: later(1), gpcs: [] },
    ]),
  );
  await house.ask(
    fixBlockDays,
    fix([
      { on: later(0), gpcs: ["s=s"] },
      { on: later(1), gpcs: [] },
    ]),
  );
  const { sessions } = await block();
  expect(sessions.slice(0, 3).map(({ by }) => by)).toEqual(["teacher", "teacher", "tool"]);
  expect((await taughtIn()).slice(0, 3)).toEqual([["s=s"], [], worked[0]]);
  const refused = async (days: { on: string; gpcs: string[] | null }[]) =>
    (await house.refused(fixBlockDays, fix(days))).detail;
  expect(await refused([{ on: later(-1), gpcs: [] }])).toContain("This day is over");
  expect(await refused([{ on: later(0), gpcs: ["zz=zz"] }])).toContain("is not a spelling");
  expect(await refused([{ on: later(0), gpcs: ["s=s", "t=t", "p=p"] }])).toContain("two at most");
  expect(
    await refused([
      { on: later(0), gpcs: null },
      { on: later(0), gpcs: [] },
    ]),
  ).toContain("twice");
  await house.ask(
    fixBlockDays,
    fix([
      { on: later(0), gpcs: null },
      { on: later(1), gpcs: null },
    ]),
  );
  expect(await taughtIn()).toEqual(worked);
});

test("a planned session stands in the block, a held one is what was; after it the block is worked out anew", async () => {
  const [first, second] = (await block()).sessions;
  if (!first || !second) throw new Error("no sessions");
  const [point] = first.points;
  const [one, other] = [uuid(), uuid()];
  const plan = (id: string, heldOn: string, target: string | null) =>
    house.ask(planNewSession, { body: { id, groupId: otters, heldOn, target, seed: 3 } });
  const made = await plan(one, first.on, null);
  // What the block has for the day is what is planned for it, each child's cards too.
  expect(made.plan.target).toBe(point?.gpc);
  const cards = made.plan.parts.find(({ kind }) => kind === "revisit")?.each ?? [];
  for (const { childId, gpcs } of first.cards)
    expect(cards.find((each) => each.childId === childId)?.items).toEqual(expect.arrayContaining(gpcs));
  await plan(other, later(2), "t=t");
  const now = (await block()).sessions;
  expect(now.find(({ sessionId }) => sessionId === one)).toMatchObject({ on: first.on, by: "session" });
  // On a day of its own.
  expect(now.find(({ sessionId }) => sessionId === other)).toMatchObject({ on: later(2), points: [{ gpc: "t=t" }] });
  await house.ask(removeSession, { params: { id: other } });
  expect((await block()).sessions.map(({ on }) => on)).not.toContain(later(2));
  const marks = members.map((childId) => ({ id: uuid(), childId, gpc: made.plan.target, outcome: "right" as const }));
  await house.ask(reportSession, {
    params: { id: one },
    body: {
      id: uuid(),
      by: "Jo P.",
      at: `${today}T07:50:00.000Z`,
      came: members,
      reached: "lastLook",
      marks,
      note: "",
    },
  });
  const after = await block();
  expect(after.past).toEqual([
    { on: today, sessionId: one, taught: [made.plan.target], about: null, came: 3, of: 3 },
  ]);
  expect(after.sessions[0]?.on).toBe(second.on);
  expect(after.sessions[0]?.points.map(({ gpc }) => gpc)).not.toContain(made.plan.target);
});

test("a session of twenty minutes and more teaches two: words of both, cards of both, said back for both", async () => {
  const id = uuid();
  const made = await house.ask(planNewSession, {
    body: { id, groupId: otters, heldOn: later(3), target: "d=d", second: "g=g", routine: "hearing", seed: 5 },
  });
  expect([made.plan.target, made.plan.second]).toEqual(["d=d", "g=g"]);
  const part = (kind: string) => made.plan.parts.find((one) => one.kind === kind)?.items ?? [];
  expect(part("teach")).toEqual(["d=d", "g=g"]);
  const words = part("readWords");
  expect([words.some((word) => word.includes("d")), words.some((word) => word.includes("g"))]).toEqual([true, true]);
  expect((await house.ask(getSession, { params: { id } })).plan.second).toBe("g=g");
  // Taught again with a smaller step, it is as long and has other parts.
  const again = await house.ask(planNewSession, {
    body: { id: uuid(), groupId: otters, heldOn: later(14), target: "d=d", way: "a smaller step", seed: 5 },
  });
  expect(again.plan.parts.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["hear", "blend"]));
  const minutes = again.plan.parts.reduce((sum, one) => sum + one.minutes, 0);
  expect(minutes).toBe(15);
});

test("a session of review that is planned or was held is no point, and two who fix other days lose neither", async () => {
  const id = uuid();
  const body = { id, groupId: otters, heldOn: later(15), target: null, routine: "review" as const, seed: 2 };
  await house.ask(planNewSession, { body });
  expect((await block()).sessions.find(({ sessionId }) => sessionId === id)).toMatchObject({
    points: [],
    by: "session",
  });
  const fix = (on: string) =>
    house.ask(fixBlockDays, { params: { id: otters }, body: { days: [{ on, gpcs: ["s=s"] }] } });
  await Promise.all([fix(later(14)), fix(later(17))]);
  const said = (await block()).sessions.filter(({ by }) => by === "teacher").map(({ on }) => on);
  expect(said).toEqual(expect.arrayContaining([later(17)]));
  const { fixed } = await house.school.groups.block(otters);
  expect(fixed.map(({ on }) => on).toSorted()).toEqual([later(14), later(17)]);
});

test("sessions that are filled ahead in one week share no word while there are others", async () => {
  const wordsOf = async (on: string) => {
    const body = { id: uuid(), groupId: otters, heldOn: on, target: "s=s", seed: 7 };
    const { plan } = await house.ask(planNewSession, { body });
    return plan.parts.flatMap(({ kind, items }) => (["readWords", "writeWords"].includes(kind) ? items : []));
  };
  const first = await wordsOf(later(70));
  const second = await wordsOf(later(72));
  expect(first.length).toBeGreaterThan(5);
  expect(second.filter((word) => first.includes(word))).toEqual([]);
});

test("a group that is closed has nothing ahead, and says so", async () => {
  await house.ask(closeGroup, { params: { id: herons }, body: { closed: true } });
  const { sessions, remarks } = await block(herons);
  expect([sessions, remarks[0]]).toEqual([[], "This group is closed: nothing is planned for it."]);
});
