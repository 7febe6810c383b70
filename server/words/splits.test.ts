import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { School } from "../house.ts";
import type { OpenStore } from "../store/opened.ts";
import { openTestStore } from "../store/testing.ts";
import { firstSchool } from "../testing.ts";
import { lexiconOf } from "./laid.ts";

let store: OpenStore;
let school: School;
beforeAll(async () => {
  store = await openTestStore();
  school = await firstSchool(store);
});
afterAll(() => store.close());

const row = (text: string, units: string[], savedAt = "2026-11-20T09:00:00.000Z") => ({
  id: uuid(),
  key: text.toLowerCase(),
  text,
  units,
  reason: "",
  savedAt,
});

test("without own splits the lexicon is the one that ships", async () => {
  expect((await school.words.read()).lexicon).toBe(school.shipped.lexicon);
});

test("own splits lie over it, and the same ones give the same lexicon, so that what it learned stays", async () => {
  const mine = row("Snorvel", ["s=s", "n=n", "or=or", "v=v", "e=schwa", "l=l"]);
  await school.words.put(mine);
  const once = (await school.words.read()).lexicon;
  expect(once.find("snorvel")[0]?.units.map((unit) => unit.sound)).toEqual(["s", "n", "or", "v", "schwa", "l"]);
  expect((await school.words.read()).lexicon).toBe(once);
  await school.words.put({ ...mine, savedAt: "2026-11-21T09:00:00.000Z" });
  expect((await school.words.read()).lexicon).not.toBe(once);
});

test("two people who split one word leave one split, the later one", async () => {
  const [early, late] = [row("read", ["r=r", "ea=ee", "d=d"]), row("READ", ["r=r", "ea=e", "d=d"])];
  await school.words.put(early);
  await school.words.put(late);
  const kept = (await school.words.list()).filter((split) => split.text.toLowerCase() === "read");
  expect(kept).toEqual([{ id: late.id, text: "READ", units: late.units, reason: "", savedAt: late.savedAt }]);
  expect((await school.words.read()).lexicon.find("read").map((word) => word.units[1]?.sound)).toEqual(["e", "ee"]);
});

test("many who say something of one word in the same moment leave one of it, and none fails", async () => {
  const savedAt = "2026-11-20T09:00:00.000Z";
  const many = Array.from({ length: 8 }, () => uuid());
  const splits = many.map((id) => ({ ...row("lead", ["l=l", "ea=ee", "d=d"]), id }));
  await Promise.all(splits.map((split) => school.words.put(split)));
  expect((await school.words.list()).filter(({ text }) => text === "lead")).toHaveLength(1);
  await Promise.all(many.map((id) => school.words.putAge({ id, key: "barge", text: "barge", knownBy: 9, savedAt })));
  const left = (await school.words.listAges()).filter(({ text }) => text === "barge");
  expect(left).toHaveLength(1);
  for (const { id } of left) await school.words.removeAge(id);
  for (const { id } of await school.words.list())
    if (many.includes(id as (typeof many)[number])) await school.words.remove(id);
});

test("own ages lie over the words as well, here and on another thread, and go again", async () => {
  const before = await school.words.read();
  const knownBy = (lexicon: typeof before.lexicon) =>
    ["anchor", "anchors"].map((one) => lexicon.find(one)[0]?.knownBy);
  expect(knownBy(before.lexicon)).toEqual([7, 9]);
  const id = uuid();
  const savedAt = "2026-11-20T09:00:00.000Z";
  await school.words.putAge({ id, key: "anchor", text: "anchor", knownBy: 12, savedAt });
  const own = await school.words.read();
  expect(knownBy(own.lexicon)).toEqual([12, 12]);
  expect(own.version).not.toBe(before.version);
  expect(knownBy(lexiconOf(school.shipped.lexicon, own.sent))).toEqual([12, 12]);
  await school.words.removeAge(id);
  expect(knownBy((await school.words.read()).lexicon)).toEqual([7, 9]);
});

test("sending one split twice changes nothing, and taking it away is told", async () => {
  const twice = row("Marlpit", ["m=m", "ar=ar", "l=l", "p=p", "i=i", "t=t"]);
  await school.words.put(twice);
  await school.words.put(twice);
  expect((await school.words.list()).filter((split) => split.id === twice.id)).toHaveLength(1);
  expect(await school.words.remove(twice.id)).toBe(true);
  expect(await school.words.remove(twice.id)).toBe(false);
});
