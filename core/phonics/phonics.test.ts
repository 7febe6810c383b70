import { describe, expect, test } from "vitest";
import {
  confusionPair,
  correspondences,
  findSound,
  likelyConfusions,
  rareCorrespondences,
  readGpc,
  sounds,
  usualGpc,
} from "./index.ts";

describe("inventory", () => {
  test("has every sound and no correspondence twice", () => {
    expect(new Set(correspondences.map((entry) => entry.gpc)).size).toBe(correspondences.length);
    expect(correspondences.filter((entry) => !findSound(entry.sound))).toEqual([]);
    const spelled = new Set([...correspondences, ...rareCorrespondences].map((entry) => entry.sound));
    expect(sounds.filter((sound) => !spelled.has(sound.key)).map((sound) => sound.key)).toEqual([]);
  });

  test("every keyword holds the letters of its spelling", () => {
    const misfits = [...correspondences, ...rareCorrespondences].filter(({ grapheme, keyword }) => {
      const pattern = new RegExp(grapheme.replace("_", "[a-z]{1,2}"));
      return !pattern.test(keyword.replace("'", ""));
    });
    expect(misfits.map((entry) => `${entry.gpc} ${entry.keyword}`)).toEqual([]);
  });
});

test("a spelling alone stands for the sound that a child meets first", () => {
  const first =
    "a=a e=e i=i o=o u=u y=ee ch=ch c=k g=g s=s th=th ow=ow ea=ee oo=oo i_e=igh o_e=oa er=er ed=d qu=kw x=ks";
  expect(first.split(" ").map((gpc) => usualGpc(gpc.split("=")[0] ?? ""))).toEqual(first.split(" "));
  expect(usualGpc("zq")).toBeUndefined();
});

describe("readGpc", () => {
  test.each([
    ["ea=ee", "ea=ee"],
    [" EA = ee ", "ea=ee"],
    ["a-e=ai", "a_e=ai"],
    ["a–e = ai", "a_e=ai"],
    ["sh", "sh=sh"],
  ])("%s is understood", (typed, gpc) => {
    const read = readGpc(typed);
    expect(read.ok && read.entry.gpc).toBe(gpc);
  });

  test.each([
    ["", /Write a spelling/],
    ["ea", /ea=ee/],
    ["zq=k", /not a spelling/],
    ["ea=blah", /not a sound key/],
    ["sh=m", /does not spell that sound/],
  ])("%j is refused with a way out", (typed, problem) => {
    const read = readGpc(typed);
    expect(read.ok).toBe(false);
    expect(read.ok ? "" : read.problem).toMatch(problem);
  });
});

describe("likelyConfusions", () => {
  test("b proposes its look-alikes first", () => {
    expect(
      likelyConfusions("b=b")
        .slice(0, 2)
        .map((confusion) => confusion.sound),
    ).toEqual(["d", "p"]);
  });
  test("a vowel letter proposes the nearest vowel first", () => {
    expect(likelyConfusions("e=e")[0]?.sound).toBe("i");
  });
  test("a digraph proposes its first letter and its other sounds", () => {
    const heard = likelyConfusions("ea=ee").map((confusion) => confusion.sound);
    expect(heard.slice(0, 2)).toEqual(["e", "ai"]);
  });
  test("never the right sound, never one twice, always real sounds", () => {
    for (const { gpc, sound } of correspondences) {
      const heard = likelyConfusions(gpc).map((confusion) => confusion.sound);
      expect(heard).not.toContain(sound);
      expect(new Set(heard).size).toBe(heard.length);
      expect(heard.filter((key) => !findSound(key))).toEqual([]);
      expect(heard.length).toBeGreaterThan(0);
    }
  });
  test("a pair has no direction", () => {
    expect(confusionPair("d", "b")).toBe(confusionPair("b", "d"));
  });
});
