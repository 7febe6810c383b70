import { randomUUID as uuid } from "node:crypto";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  listPictures,
  listWordAges,
  MOST_PICTURES,
  removePicture,
  removeWordAge,
  savePicture,
  sayWordAge,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

/** Ages of words and pictures that a school says itself. */

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

describe("a school's own ages of words", () => {
  test("are kept, one a word, and taken away again", async () => {
    const [first, second] = [uuid(), uuid()];
    await house.ask(sayWordAge, { params: { id: first }, body: { text: "Thus", knownBy: 5 } });
    await house.ask(sayWordAge, { params: { id: second }, body: { text: "thus", knownBy: 7 } });
    await house.ask(sayWordAge, { params: { id: second }, body: { text: "thus", knownBy: 7 } });
    expect(await house.ask(listWordAges, {})).toMatchObject([{ id: second, text: "thus", knownBy: 7 }]);
    await house.ask(removeWordAge, { params: { id: second } });
    expect(await house.ask(listWordAges, {})).toEqual([]);
    expect((await house.refused(removeWordAge, { params: { id: second } })).status).toBe(404);
  });

  test.each([
    ["a word that the list does not have", { text: "zorble", knownBy: 5 }, /not in the word list/],
    ["an age that is none", { text: "thus", knownBy: 6 }, /./],
    ["a word without end", { text: "a".repeat(60), knownBy: 5 }, /40/],
  ])("refuse %s and change nothing", async (_, body, says) => {
    const problem = await house.refused(sayWordAge, { params: { id: uuid() }, body: body as never });
    expect(problem.status).toBe(422);
    expect(problem.detail).toMatch(says);
    expect(await house.ask(listWordAges, {})).toEqual([]);
  });
});

const drawn = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#c40" } });
const base64 = (file: Buffer) => file.toString("base64");
const keep = (text: string, file: Buffer, id = uuid()) => ({
  params: { id },
  body: { text, image: base64(file), madeBy: "Ms Harrow" },
});

describe("a school's own pictures", () => {
  test("are drawn anew: small, in grey, without what else was in the file; one a word", async () => {
    const photo = await drawn(1200, 600)
      .withExif({ IFD0: { Copyright: "SECRET PLACE" } })
      .jpeg()
      .toBuffer();
    expect(photo.includes("SECRET PLACE")).toBe(true);
    const kept = await house.ask(savePicture, keep("Barge", photo));
    const file = Buffer.from(kept.image.replace("data:image/png;base64,", ""), "base64");
    const { format, width, height } = await sharp(file).metadata();
    expect({ format, width, height }).toEqual({ format: "png", width: 320, height: 160 });
    const { channels } = await sharp(file).stats();
    expect(new Set(channels.slice(0, 3).map(({ mean }) => Math.round(mean))).size).toBe(1);
    expect(file.includes("SECRET PLACE")).toBe(false);
    const again = uuid();
    await house.ask(savePicture, keep("barge", await drawn(40, 40).webp().toBuffer(), again));
    expect(await house.ask(listPictures, {})).toMatchObject([{ id: again, text: "barge", madeBy: "Ms Harrow" }]);
    await house.ask(removePicture, { params: { id: again } });
    expect(await house.ask(listPictures, {})).toEqual([]);
    expect((await house.refused(removePicture, { params: { id: again } })).status).toBe(404);
  });

  test.each([
    ["a text", async () => Buffer.from("no picture at all")],
    [
      "a drawing that can hold scripts",
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
    ],
    ["half a file", async () => (await drawn(300, 300).png().toBuffer()).subarray(0, 150)],
    [
      "a small file that unfolds to very many points",
      () => drawn(6000, 6000).png({ palette: true, colours: 2, compressionLevel: 9 }).toBuffer(),
    ],
  ])("are not made of %s", async (_, file) => {
    const problem = await house.refused(savePicture, keep("barge", await file()));
    expect(problem).toMatchObject({ status: 422, fields: [{ field: "image" }] });
    expect(await house.ask(listPictures, {})).toEqual([]);
  });

  test("are of one word each, and say who made them", async () => {
    const file = await drawn(4, 4).png().toBuffer();
    for (const [text, madeBy] of [
      ["two words", "Ms Harrow"],
      ["barge", ""],
      ["<b>", "Ms Harrow"],
    ] as const) {
      const asked = keep(text, file);
      const problem = await house.refused(savePicture, { ...asked, body: { ...asked.body, madeBy } });
      expect(problem.status, text).toBe(422);
    }
  });

  test("are no more than a school can have; one of them can still be changed", async () => {
    const file = await drawn(4, 4).png().toBuffer();
    const word = (at: number) => `w${String.fromCharCode(97 + Math.floor(at / 26), 97 + (at % 26))}`;
    for (let at = 0; at < MOST_PICTURES; at++) await house.ask(savePicture, keep(word(at), file));
    const problem = await house.refused(savePicture, keep("barge", file));
    expect(problem.detail).toMatch(/200 pictures of its own already/);
    await house.ask(savePicture, keep(word(0), file));
    expect(await house.ask(listPictures, {})).toHaveLength(MOST_PICTURES);
  });
});
