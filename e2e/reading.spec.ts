import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { childNamed, classNamed, expect, expectAccessible, put, type School, test } from "./school.ts";

// The server is ended in the middle of it.
test.use({ alone: true });

interface Kept {
  readonly id: string;
  readonly how: string;
  readonly text: string;
  readonly marks: {
    readonly at: number;
    readonly kind: string;
    readonly heard: string | null;
    readonly ms?: number;
  }[];
  readonly turns: { readonly at: number; readonly ms: number }[];
  readonly stoppedAt: number | null;
  readonly ms: number | null;
  readonly fit: number | null;
}

async function readingsOf(school: School, childId: string): Promise<Kept[]> {
  return school.get<Kept[]>(`/api/children/${childId}/readings`);
}

/** How far the clock of the one reading on its way is kept on this device, in milliseconds. */
function keptTick(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        const open = indexedDB.open("keen-sapling");
        open.onsuccess = () => {
          const all = open.result.transaction("pages").objectStore("pages").getAll();
          all.onsuccess = () => {
            open.result.close();
            done(Math.max(0, ...all.result.map((one) => Number(one.content?.tick ?? 0))));
          };
        };
      }),
  );
}

/** Keeps a text of the school's own. */
async function ownText(school: School, id: string, body: string, version = 0): Promise<void> {
  const content = { title: "Fog on the cut", exceptions: [], body, questions: [], words: [] };
  await put(school, `/api/texts/${id}`, {
    content,
    version,
    savedAt: new Date().toISOString(),
    savedBy: "Ms Harrow",
  });
}

const wordIn = (page: Page) => (at: number) => page.locator(`[data-word="${at}"]`);

test("a child reads for a minute and is marked with one hand: by tap and key, across a reload and without the server", async ({
  page,
  school,
}) => {
  test.setTimeout(120_000);
  const child = await childNamed(school, "Gwen A.");
  await page.goto(`${school.base}/texts/the-fish-shop-cat?for=child:${child.id}`);
  await page.getByRole("link", { name: "Listen to Gwen A. read it" }).click();
  const word = wordIn(page);
  await expect(word(0)).toHaveText("Fleck");
  await expectAccessible(page);
  await page.clock.install();
  await page.keyboard.press(" ");
  await word(3).click();
  await page.getByLabel("What was said").fill("sit");
  await word(9).click();
  await page.getByRole("button", { name: /^Put right/ }).click();
  await word(11).click();
  await page.locator("h1").click();
  await page.keyboard.press("t");
  await word(14).click();
  await page.getByRole("button", { name: /^Left out/ }).click();
  await word(20).click();
  await page.getByRole("button", { name: /^Said again/ }).click();
  await page.clock.runFor(20_000);
  await expect.poll(() => keptTick(page)).toBeGreaterThanOrEqual(19_000);
  await page.reload();
  await expect(page.getByTestId("clock")).toHaveText(/^(19|2\d) s$/);
  await page.getByRole("button", { name: /^Go on/ }).click();
  await page.clock.runFor(11_000);
  await page.getByRole("button", { name: /^Pause/ }).click();
  const stood = (await page.getByTestId("clock").textContent()) ?? "";
  expect(Number.parseInt(stood, 10)).toBeGreaterThanOrEqual(30);
  await page.reload();
  await expect(page.getByTestId("clock")).toHaveText(stood);
  await expect(word(3)).toContainText("marked");
  await school.kill();
  await page.keyboard.press(" ");
  await page.clock.runFor(31_000);
  await expect(page.getByText("Tap the last word that was read.")).toBeVisible();
  await word(29).click();
  // 30 words in about a minute; sat, not told and left out: three wrong, one put right.
  await expect(page.getByTestId("Accuracy")).toHaveText("90%");
  await expect(page.getByTestId("Errors")).toHaveText("3");
  await expect(page.getByTestId("Put right by the child")).toHaveText("25%");
  await expect(page.getByTestId("Words correct per minute")).toHaveText("27");
  await expect(page.getByText("Right for teaching.")).toBeVisible();
  await expect(page.getByText("a /æ/ was read as /ɪ/.", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "3: phrases, with some breaks" }).click();
  await page.getByRole("button", { name: "Where did Fleck sit at first? right" }).click();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save this reading" }).click();
  await expect(page.getByText("The reading is kept on this device.", { exact: false })).toBeVisible();
  await school.start();
  await page.getByRole("button", { name: "Save this reading" }).click();
  await expect(page.getByRole("heading", { name: "Gwen A.", exact: true })).toBeVisible();
  await expect(page.getByRole("row", { name: /The Fish Shop Cat.*90%/ })).toBeVisible();
  const [kept] = await readingsOf(school, child.id);
  expect(kept?.stoppedAt).toBe(29);
  expect(kept?.fit).toBeGreaterThan(0.5);
  expect(kept?.marks.every((mark) => typeof mark.ms === "number")).toBe(true);
  expect(kept?.marks.map(({ ms: _, ...mark }) => mark)).toEqual([
    { at: 3, kind: "misread", heard: "sit" },
    { at: 9, kind: "misread", heard: null },
    { at: 9, kind: "putRight", heard: null },
    { at: 11, kind: "told", heard: null },
    { at: 14, kind: "leftOut", heard: null },
    { at: 20, kind: "again", heard: null },
  ]);

  await page.goto(`${school.base}/texts/the-fish-shop-cat/read?child=${child.id}`);
  await expect(word(3)).not.toContainText("marked");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "It was read to the end" }).click();
  await expect(page.getByTestId("Accuracy")).toHaveText("100%");
  await expect(page.getByTestId("Words correct per minute")).toHaveText("–");
  await expect(page.getByRole("table").filter({ hasText: "Words that stopped" })).toContainText("sat");
  await page.getByRole("button", { name: "Save this reading" }).click();
  const chart = page.getByRole("img", { name: /^Words correct per minute and accuracy of \d+ readings/ });
  await expect(chart.locator("svg")).toBeVisible();
  const changed = page.locator("section", { has: page.getByRole("heading", { name: "What changed on the map" }) });
  await expect(
    changed.getByText(/^(This reading spoke of|Nothing: what was marked)|This reading spoke of/),
  ).toBeVisible();
  await expectAccessible(page);
});

test("line by line on another device: it shows the line alone, turning it gives the pace of each sentence", async ({
  page,
  school,
  browser,
}) => {
  test.setTimeout(120_000);
  const id = crypto.randomUUID();
  await ownText(school, id, "Fog sat on the cut. A duck hid in it.\n\n“Quack!” said the duck. No one saw it.");
  const child = await childNamed(school, "Hari S.");
  await page.clock.install();
  await page.goto(`${school.base}/texts/${id}/read?child=${child.id}`);
  await page.getByRole("button", { name: "The child's text" }).click();
  await page.getByLabel("One line at a time", { exact: false }).check();
  await page.getByLabel("Size").fill("60");
  await page.getByRole("button", { name: "Get a code for another device" }).click();
  const code = ((await page.getByRole("dialog").getByRole("status").textContent()) ?? "").replace(/\D/g, "");
  await expectAccessible(page);
  await page.keyboard.press("Escape");

  const elsewhere = await browser.newContext({ viewport: { width: 820, height: 1180 } });
  const face = await elsewhere.newPage();
  await face.goto(`${school.base}/look?code=${code}`);
  const passage = face.getByTestId("passage");
  await expect(passage).toHaveText("Fog sat on the cut.");
  expect(await passage.evaluate((one) => getComputedStyle(one).fontSize)).toBe("60px");
  await expect(face.getByRole("button")).toHaveCount(0);
  await expectAccessible(face);

  await page.keyboard.press(" ");
  for (const [seconds, line] of [
    [5, "A duck hid in it."],
    [10, "“Quack!” said the duck."],
    [4, "No one saw it."],
  ] as const) {
    await page.clock.runFor(seconds * 1000);
    await page.keyboard.press("ArrowDown");
    await expect(passage).toHaveText(line);
  }
  await page.clock.runFor(3000);
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "It was read to the end" }).click();
  await page.getByText("The figures").click();
  const rows = page.getByRole("row", { name: /^[1-4] / });
  const seconds = (await rows.locator("td:nth-child(3)").allTextContents()).map(Number);
  for (const [at, wanted] of [5, 10, 4, 3].entries()) expect(Math.abs((seconds[at] ?? 0) - wanted)).toBeLessThan(1.5);
  await expect(page.getByText("Slowest in sentence 2", { exact: false })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Words a minute of 4 sentences/ }).locator("svg")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save this reading" }).click();
  await expect(face.getByRole("heading", { name: "That was all." })).toBeVisible();
  const [kept] = await readingsOf(school, child.id);
  expect(kept?.turns.map((turn) => turn.at)).toEqual([5, 10, 14]);
  await elsewhere.close();

  // The text is changed; the reading keeps what was read, and what was said is typed in now.
  await ownText(school, id, "Sun sat on the cut.", 1);
  await page.getByRole("link", { name: "Fog on the cut" }).click();
  const word = wordIn(page);
  await expect(word(0)).toHaveText("Fog");
  await word(6).click();
  await page.getByLabel("What was said").fill("dock");
  await expect(page.getByText("u /ʌ/ was read as /ɒ/.", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "Save this reading" }).click();
  // What came once stands behind a button.
  const once = page.getByRole("button", { name: /came once$/ });
  const pair = page.getByText("“o” for “u”", { exact: false }).first();
  await expect(once.or(pair).first()).toBeVisible();
  if (await once.isVisible()) await once.click();
  await expect(pair).toBeVisible();
  const after = await readingsOf(school, child.id);
  expect(after.filter((one) => one.id === kept?.id)).toMatchObject([
    { text: kept?.text, marks: [{ at: 6, kind: "misread", heard: "dock" }] },
  ]);
});

test("a group reads together: no clock, no rate, kept with each child who is there", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const [group] = await school.get<{ id: string; name: string; members: { childId: string }[] }[]>("/api/groups");
  if (!group) throw new Error("no group");
  await page.goto(`${school.base}/texts/the-lost-doll?for=group:${group.id}`);
  await page.getByRole("link", { name: "Read it together" }).click();
  await expect(page.getByTestId("clock")).toHaveCount(0);
  const here = page.getByRole("group", { name: "Who is here" }).getByRole("checkbox");
  await expect(here).toHaveCount(group.members.length);
  await here.first().uncheck();
  const word = wordIn(page);
  await word(2).click();
  await page.getByRole("button", { name: /^Told/ }).click();
  await page.reload();
  await expect(word(2)).toContainText("marked");
  await expect(here.first()).not.toBeChecked();
  await expectAccessible(page);
  await page.getByRole("button", { name: /^Done/ }).click();
  await page.getByLabel("Note").fill("Choral, then in pairs.");
  await page.getByRole("button", { name: `Save for ${group.members.length - 1} children` }).click();
  await expect(page.getByRole("heading", { name: "Texts" })).toBeVisible();
  const all = await Promise.all(group.members.map((member) => readingsOf(school, member.childId)));
  const together = all.map((list) => list.filter((one) => one.how === "together"));
  expect(together.filter((list) => list.length === 1)).toHaveLength(group.members.length - 1);
  expect(together.flat().every((one) => one.ms === null && one.marks.length === 1)).toBe(true);
  const who = group.members[together.findIndex((list) => list.length === 1)];
  await page.goto(`${school.base}/child/${who?.childId}`);
  await expect(page.getByRole("row", { name: /The Lost Doll.*together.*Choral/ })).toBeVisible();
});

test("two marks at one word, and a word put in before the first: the same by key, by touch and by the API", async ({
  page,
  school,
}) => {
  const textId = crypto.randomUUID();
  await ownText(school, textId, "Fog sat on the cut.");
  const child = await childNamed(school, "Fitz R.");
  const word = wordIn(page);
  const mark = (name: RegExp) => page.getByRole("group", { name: "Marks" }).getByRole("button", { name }).click();
  const byKey = async () => {
    const keys = ["ArrowRight", "s", "m", "ArrowRight", "l", "r", "ArrowRight", "m", "t"];
    for (const key of [...keys, "ArrowLeft", "ArrowLeft", "ArrowLeft", "m", "i"]) await page.keyboard.press(key);
    await expect(page.getByText("before the first word", { exact: true })).toBeVisible();
  };
  const byTouch = async () => {
    await word(0).click();
    for (const name of [/^Misread/, /^Sounded out/]) await mark(name);
    await word(1).click();
    for (const name of [/^Left out/, /^Put right/]) await mark(name);
    await word(2).click();
    for (const name of [/^Misread/, /^Told/]) await mark(name);
    await page.getByRole("button", { name: "Before the first word" }).click();
    await mark(/^Put in/);
    await expectAccessible(page);
  };
  for (const [at, way] of [byKey, byTouch].entries()) {
    await page.goto(`${school.base}/texts/${textId}/read?child=${child.id}`);
    await expect(word(0)).toBeVisible();
    await way();
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "It was read to the end" }).click();
    // Fog and on are wrong, sat was mended, and one word was put in.
    await expect(page.getByTestId("Accuracy")).toHaveText("60%");
    await page.getByRole("button", { name: "Save this reading" }).click();
    await expect(page.getByRole("heading", { name: "Fitz R.", exact: true })).toBeVisible();
    expect(await mine()).toHaveLength(at + 1);
  }
  const [touched, keyed] = await mine();
  const whole = await school.get<(Kept & { textId: string })[]>(`/api/children/${child.id}/readings`);
  const { id: _, ...body } = whole.find((one) => one.textId === textId) ?? { id: "" };
  await put(school, `/api/readings/${crypto.randomUUID()}`, { ...body, childId: child.id });
  const [, sentAgain] = await mine();
  for (const one of [touched, keyed, sentAgain]) {
    expect(one?.marks.map(({ at, kind }) => `${at} ${kind}`).sort()).toEqual([
      "-1 putIn",
      "0 misread",
      "0 sounded",
      "1 leftOut",
      "1 putRight",
      "2 misread",
      "2 told",
    ]);
  }
  async function mine(): Promise<Kept[]> {
    const all = await school.get<(Kept & { textId: string })[]>(`/api/children/${child.id}/readings`);
    return all.filter((one) => one.textId === textId);
  }
});

test("the school's limits and aims are what a reading is told by; a long stop counts up to telling", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/settings`);
  const aims = page.locator("section", { has: page.getByLabel("Easy from, %") });
  await page.getByLabel("Easy from, %").fill("80");
  await aims.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("alert")).toContainText("Easy begins where right for teaching ends");
  await page.getByLabel("Right for teaching from, %").fill("70");
  await page.getByLabel("Wait before telling, seconds").fill("2");
  for (const time of ["start", "middle", "end"]) await page.getByLabel(`Year 2, ${time}`).fill("33");
  await aims.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved. All readings follow it", { exact: false })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Year 2, middle")).toHaveValue("33");
  await expectAccessible(page);

  const towpath = await classNamed(school, "Towpath");
  await page.goto(`${school.base}/texts?for=class:${towpath.id}`);
  await page.getByText("The newest reading of each child").click();
  await expect(
    page.getByRole("img", { name: /^Words correct per minute of \d+ children/ }).locator("svg"),
  ).toContainText("aim now: 33");
  const [csv] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^All readings as CSV/ }).click(),
  ]);
  expect(readFileSync(await csv.path(), "utf8")).toMatch(
    /^\uFEFFchild,day,text,how,correctPerMinute,accuracy,fit\r?\n/,
  );
  const figures = page.getByRole("region", { name: "The figures" });
  await figures.getByRole("columnheader", { name: "Correct per minute" }).getByRole("button").click();
  const rates = (await figures.locator("td:nth-child(2)").allTextContents()).map(Number);
  expect(rates.length).toBeGreaterThan(15);
  expect(rates).toEqual([...rates].sort((one, other) => one - other));
  await expectAccessible(page);

  const child = await childNamed(school, "Wren I.");
  await page.goto(`${school.base}/texts/ants-on-the-sand/read?child=${child.id}`);
  const word = wordIn(page);
  await word(1).click();
  await page.getByRole("button", { name: /^Long stop/ }).click();
  await expect(page.getByText("Waited 2 seconds: tell the word.")).toBeVisible();
  await page.getByRole("button", { name: /^Told/ }).click();
  await expect(page.getByText("Waited 2 seconds", { exact: false })).toHaveCount(0);
  await word(3).click();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Tap the last word that was read.")).toBeVisible();
  await page.reload();
  await expect(page.getByText("Tap the last word that was read.")).toBeVisible();
  await word(9).click();
  await expect(page.getByTestId("Accuracy")).toHaveText("80%");
  await expect(page.getByText("Easy: to read alone.")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Tomorrow" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Look at it" })).toBeVisible();
});

test("four hundred words, marked at once as fast as frames come: every tap shows within a frame", async ({
  page,
  school,
}) => {
  test.setTimeout(120_000);
  const id = crypto.randomUUID();
  await ownText(school, id, Array.from({ length: 50 }, () => "Fog sat on the cut and hid it.").join(" "));
  const child = await childNamed(school, "Kit A.");
  await page.goto(`${school.base}/texts/${id}/read?child=${child.id}`);
  await expect(wordIn(page)(399)).toBeVisible();
  await page.keyboard.press(" ");
  const late = await page.evaluate(async () => {
    const frame = () => new Promise(requestAnimationFrame);
    const counts: number[] = [];
    for (let at = 0; at < 400; at += 2) {
      const word = document.querySelector<HTMLElement>(`[data-word="${at}"]`);
      word?.click();
      let frames = 0;
      while (!word?.textContent?.includes("marked") && frames < 60) {
        await frame();
        frames++;
      }
      counts.push(frames);
      await frame();
    }
    return counts;
  });
  expect(late).toHaveLength(200);
  expect(late.filter((frames) => frames > 1)).toEqual([]);
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "It was read to the end" }).click();
  await expect(page.getByTestId("Accuracy")).toHaveText("50%");
  await page.getByRole("button", { name: "Save this reading" }).click();
  // Four hundred words in a few seconds: it asks whether the time can be right.
  await expect(page.getByRole("dialog", { name: "Can the time be right?" })).toContainText(
    "faster than anyone reads",
  );
  await page.getByRole("button", { name: "Save it with this time" }).click();
  await expect(page.getByRole("heading", { name: "Kit A.", exact: true })).toBeVisible();
  const [kept] = await readingsOf(school, child.id);
  expect(kept?.marks.map((mark) => mark.at)).toEqual(Array.from({ length: 200 }, (_, at) => at * 2));
});
