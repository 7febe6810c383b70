import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import type { TextView } from "#contract";
import { readLibraryText, sortArrivals } from "#core/reading";
import { readLibraryFile, writeLibrary } from "./library-file.ts";

const shipped = readdirSync("data/texts").map((file): TextView => {
  const { step: _, ...text } = readLibraryText(readFileSync(`data/texts/${file}`, "utf8"));
  return { id: file.slice(3, -3), own: false, version: 1, ...text };
});

test("the whole library goes out and comes back as the same texts; nothing is new then", () => {
  const { texts, refused } = readLibraryFile("ours.json", writeLibrary(shipped));
  expect(refused).toEqual([]);
  expect(texts).toEqual(shipped.map(({ own: _, version: __, ...text }) => text));
  expect(new Set(sortArrivals(texts, shipped, () => "new").map((one) => one.does))).toEqual(
    new Set(["here already"]),
  );
});

test("a text of a file needs title and body alone; a bad one is named and stops no other", () => {
  const file = {
    format: "keen-sapling texts 1",
    texts: [
      { title: "Mud", body: "Mud on a mat." },
      { title: "Fog", body: "" },
      { body: "No title." },
      { title: "Endless", body: "a".repeat(60) },
      { title: "Odd", body: "It hid.", questions: [{ kind: "which", ask: "?" }] },
      "not a text",
    ],
  };
  const { texts, refused } = readLibraryFile("some.json", JSON.stringify(file));
  expect(texts).toEqual([{ title: "Mud", body: "Mud on a mat.", exceptions: [], questions: [], words: [] }]);
  expect(refused.map((one) => one.title)).toEqual(["Fog", "Text 3", "Endless", "Odd", "Text 6"]);
  expect(refused[0]?.says).toMatch(/^body: Write or paste/);
  expect(refused[1]?.says).toMatch(/^title: Please fill this in/);
  expect(refused[2]?.says).toMatch(/more than 40 letters/);
  expect(refused[3]?.says).toMatch(/^questions, 0, kind/);
});

test("plain text and Markdown are one text each, named after the file where they have no title", () => {
  expect(readLibraryFile("The wet step.txt", "Tess slips.\n\nShe is wet.").texts[0]).toMatchObject({
    title: "The wet step",
    body: "Tess slips.\n\nShe is wet.",
  });
  expect(readLibraryFile("x.md", "# The wet step\n\nTess <b>slips</b>.").texts[0]).toMatchObject({
    title: "The wet step",
    body: "Tess <b>slips</b>.",
  });
});

test.each([
  ["no JSON", "a.json", "{", /not readable as JSON/],
  ["another JSON", "a.json", "[]", /no library of texts/],
  ["another format", "a.json", '{"format":"x","texts":[]}', /“format” must be/],
  ["an empty file", "a.txt", "", /body/],
  ["a picture", "a.txt", "\u0000\u0001PNG\u0000", /cannot be shown|Has characters/],
  ["far too much", "a.json", " ".repeat(8_000_001), /too much for texts/],
])("%s is refused in words", (_, name, content, says) => {
  const { texts, refused } = readLibraryFile(name, content);
  expect(texts).toEqual([]);
  expect(refused).toHaveLength(1);
  expect(refused[0]?.says).toMatch(says);
});
