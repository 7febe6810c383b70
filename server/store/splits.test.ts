import { randomUUID as uuid } from "node:crypto";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { readGround } from "./ground.ts";
import type { OpenStore } from "./open.ts";
import { deleteSplit, listSplits, putSplit, schoolLexicon } from "./splits.ts";
import { openTestStore } from "./testing.ts";

const shipped = readGround(join(import.meta.dirname, "../../data")).lexicon;
let store: OpenStore;
beforeAll(async () => {
  store = await openTestStore();
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
  expect(await schoolLexicon(store.db, shipped)).toBe(shipped);
});

test("own splits lie over it, and the same ones give the same lexicon, so that what it learned stays", async () => {
  const mine = row("Snorvel", ["s=s", "n=n", "or=or", "v=v", "e=schwa", "l=l"]);
  await putSplit(store.db, mine);
  const once = await schoolLexicon(store.db, shipped);
  expect(once.find("snorvel")[0]?.units.map((unit) => unit.sound)).toEqual(["s", "n", "or", "v", "schwa", "l"]);
  expect(await schoolLexicon(store.db, shipped)).toBe(once);
  await putSplit(store.db, { ...mine, savedAt: "2026-11-21T09:00:00.000Z" });
  expect(await schoolLexicon(store.db, shipped)).not.toBe(once);
});

test("two people who split one word leave one split, the later one", async () => {
  const [early, late] = [row("read", ["r=r", "ea=ee", "d=d"]), row("READ", ["r=r", "ea=e", "d=d"])];
  await putSplit(store.db, early);
  await putSplit(store.db, late);
  const kept = (await listSplits(store.db)).filter((split) => split.text.toLowerCase() === "read");
  expect(kept).toEqual([{ id: late.id, text: "READ", units: late.units, reason: "", savedAt: late.savedAt }]);
  expect((await schoolLexicon(store.db, shipped)).find("read").map((word) => word.units[1]?.sound)).toEqual([
    "e",
    "ee",
  ]);
});

test("sending one split twice changes nothing, and taking it away is told", async () => {
  const twice = row("Marlpit", ["m=m", "ar=ar", "l=l", "p=p", "i=i", "t=t"]);
  await putSplit(store.db, twice);
  await putSplit(store.db, twice);
  expect((await listSplits(store.db)).filter((split) => split.id === twice.id)).toHaveLength(1);
  expect(await deleteSplit(store.db, twice.id)).toBe(true);
  expect(await deleteSplit(store.db, twice.id)).toBe(false);
});
