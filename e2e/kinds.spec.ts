import type { Page } from "@playwright/test";
import { asked, marksAlone, part, saved, sit, stored } from "./checking.ts";
import { expect, expectAccessible, type School, test } from "./school.ts";

/** A kind, its part of a plan, and what its five places mark. */
const kinds: readonly [string, object, readonly string[]][] = [
  ["card", part("card", { most: 8 }), ["right", "slow", "ownWay", "wrong", "none"]],
  ["names", part("names", { cases: "both", most: 10 }), ["right", "slow", "ownWay", "wrong", "none"]],
  [
    "words",
    part("words", { blocks: ["three", "fourStart", "twoSyllables"], most: 4, strategy: "inOrder" }),
    ["right", "sounded", "blend", "wrong", "none"],
  ],
  ["exception", part("exception", { most: 8 }), ["right", "slow", "sounded", "wrong", "none"]],
  ["write", part("write", { most: 8 }), ["right", "other", "reversed", "wrong", "none"]],
  [
    "listen",
    part("listen", { tasks: ["compound", "sounds", "where", "alike"], most: 3, strategy: "inOrder" }),
    ["right", "slow", "ownWay", "wrong", "none"],
  ],
];

interface Pressed {
  readonly outcome: string;
  readonly heard?: string | null;
}

/** Plays every place of the pad, a typed answer, a held one and a likely one; gives what was pressed, in order. */
async function byKeyboard(page: Page, outcomes: readonly string[], likely: boolean): Promise<Pressed[]> {
  const pressed: Pressed[] = [];
  for (const [at, outcome] of outcomes.entries()) {
    await asked(page);
    await page.keyboard.press(String(at + 1));
    const typing = page.getByLabel("What was said or written");
    if (outcome === "wrong") {
      await typing.fill("zonk");
      await page.keyboard.press("Enter");
      pressed.push({ outcome, heard: "zonk" });
    } else pressed.push({ outcome });
  }
  await asked(page);
  await page.keyboard.press("Shift+Digit4");
  pressed.push({ outcome: "wrong", heard: null });
  if (likely) {
    await asked(page);
    await page.keyboard.press("q");
    pressed.push({ outcome: "" });
  }
  return pressed;
}

async function agrees(school: School, id: string, pressed: readonly Pressed[]): Promise<void> {
  const log = (await stored(school, id)).filter((entry) => entry.outcome !== "stop");
  expect(log).toHaveLength(pressed.length);
  for (const [at, { outcome, heard }] of pressed.entries()) {
    if (outcome) expect(log[at]?.outcome).toBe(outcome);
    else expect(["wrong", "other"]).toContain(log[at]?.outcome);
    if (heard !== undefined) expect(log[at]?.heard).toBe(heard);
  }
  expect(new Set(log.map((entry) => entry.item)).size).toBe(log.length);
}

for (const [kind, plan, outcomes] of kinds)
  test(`${kind}: by keyboard, what is stored is what was pressed`, { tag: kind === "words" ? "@main" : [] }, async ({
    page,
    school,
  }) => {
    await marksAlone(school);
    const { id } = await sit(school, ["Alba T."], [plan]);
    await page.goto(`${school.base}/check/${id}`);
    await asked(page);
    if (kind === "words" || kind === "listen") await expectAccessible(page);
    const pressed = await byKeyboard(page, outcomes, kind !== "exception");
    await saved(page);
    await agrees(school, id, pressed);
    await page.getByRole("button", { name: "Stop here" }).click();
    await page.getByRole("button", { name: "End this part" }).click();
    await expect(page.getByRole("heading", { name: "What this check says: Alba T." })).toBeVisible();
    await expect(page.getByText(/^\d+ of \d+ right at once/)).toBeVisible();
    if (kind === "words") await expectAccessible(page);
  });

test.describe("on an upright tablet", () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  for (const [kind, plan, outcomes] of kinds)
    test(`${kind}: by touch, with the line cut in the middle`, { tag: kind === "card" ? "@main" : [] }, async ({
      page,
      school,
      context,
    }) => {
      await marksAlone(school);
      const { id } = await sit(school, ["Gwen A."], [plan]);
      await page.goto(`${school.base}/check/${id}`);
      await asked(page);
      const pad = page.getByRole("group", { name: "Mark", exact: true }).getByRole("button");
      const pressed: Pressed[] = [];
      for (const [at, outcome] of outcomes.entries()) {
        await asked(page);
        if (at === 2) {
          await saved(page);
          await context.setOffline(true);
        }
        const place = pad.nth(at);
        const box = await place.boundingBox();
        expect(Math.min(box?.height ?? 0, box?.width ?? 0)).toBeGreaterThanOrEqual(44);
        expect((box?.x ?? 0) + (box?.width ?? 0)).toBeGreaterThan(820 - 240);
        await place.tap();
        if (outcome === "wrong") {
          await page.getByLabel("What was said or written").fill("zonk");
          await page.getByRole("button", { name: /^Save as/ }).tap();
        }
        pressed.push({ outcome, ...(outcome === "wrong" ? { heard: "zonk" } : {}) });
      }
      await expect(page.getByText("3 marks kept on this device until the server answers")).toBeVisible();
      await context.setOffline(false);
      await saved(page);
      await agrees(school, id, pressed);
    });

  test("find: the child taps its answers on the tablet itself, with the line cut in the middle", async ({
    page,
    school,
    context,
  }) => {
    await marksAlone(school);
    const { id, checks } = await sit(
      school,
      ["Gwen A."],
      [part("find", { scope: "picked", picked: ["b=b", "m=m", "sh=sh", "t=t"], choices: 9, strategy: "inOrder" })],
    );
    await page.goto(`${school.base}/check/${id}`);
    const choices = page.getByTestId("choices").getByRole("button");
    const tapped: string[] = [];
    for (const [at, item] of (checks[0]?.items ?? []).entries()) {
      if (at === 2) {
        await saved(page);
        await context.setOffline(true);
      }
      await expect(page.getByText(`${at + 1} of 4`, { exact: true })).toBeVisible();
      await expect(choices).toHaveCount(9);
      const right = item.split("=")[0] ?? "";
      const all = await choices.allTextContents();
      const pick = at % 2 === 0 ? right : (all.find((one) => one !== right) ?? "");
      await choices.filter({ hasText: new RegExp(`^${pick}$`) }).tap();
      tapped.push(pick === right ? "right" : `wrong ${pick}`);
    }
    await expect(page.getByText("2 marks kept on this device until the server answers")).toBeVisible();
    await context.setOffline(false);
    await saved(page);
    const log = await stored(school, id);
    expect(log.map((entry) => (entry.outcome === "right" ? "right" : `${entry.outcome} ${entry.heard}`))).toEqual(
      tapped,
    );
  });

  test("choose: a word is said, the child taps which spelling belongs in its gap, and the map of writing hears it", async ({
    page,
    school,
  }) => {
    await marksAlone(school);
    const { id, checks } = await sit(
      school,
      ["Hari S."],
      [
        part("choose", {
          scope: "picked",
          picked: ["ai=ai", "ay=ai", "a_e=ai", "ee=ee", "ea=ee"],
          strategy: "inOrder",
        }),
      ],
    );
    const items = checks[0]?.items ?? [];
    expect(items).toHaveLength(5);
    await page.goto(`${school.base}/check/${id}`);
    const choices = page.getByTestId("choices").getByRole("button");
    const tapped: string[] = [];
    for (const [at, item] of items.entries()) {
      await expect(page.getByText(`${at + 1} of 5`, { exact: true })).toBeVisible();
      const said = (await page.getByText(/^Say: /).textContent())?.replace(/^Say: | · $/g, "").trim() ?? "";
      const right = (item.split("=")[0] ?? "").replace("_", "–");
      const gapped = await page.getByTestId("gapped").innerText();
      // The word without its spelling is what stands around the gap.
      const [opening = "", closing = ""] = right.split("–");
      const around = closing ? said.replace(new RegExp(`${opening}(.)${closing}$`), "$1") : said.replace(opening, "");
      expect(gapped.replace(/\s/g, "")).toBe(around);
      if (at === 0) await expectAccessible(page);
      const all = await choices.allTextContents();
      expect(all).toContain(right);
      const pick = at === 1 ? (all.find((one) => one !== right) ?? "") : right;
      await choices.filter({ hasText: new RegExp(`^${pick}$`) }).tap();
      tapped.push(pick === right ? "right" : `wrong ${pick.replace("–", "_")}`);
    }
    await saved(page);
    const log = await stored(school, id);
    expect(log.map((entry) => (entry.outcome === "right" ? "right" : `${entry.outcome} ${entry.heard}`))).toEqual(
      tapped,
    );
    const { childId = "" } = checks[0] ?? {};
    const { pieces } = await school.get<{ pieces: { says: string }[] }>(
      `/api/children/${childId}/evidence?of=spelling&gpc=${encodeURIComponent(items[1] ?? "")}`,
    );
    expect(pieces[0]?.says).toContain("another was chosen for a word");
  });

  test("written words and a sheet: typed and tapped without a line, and kept", async ({ page, school, context }) => {
    await marksAlone(school);
    const { id } = await sit(
      school,
      ["Gwen A.", "Quin E."],
      [
        part("dictation", { scope: "picked", picked: ["train", "ship"], strategy: "inOrder" }),
        part("paper", { most: 3, strategy: "inOrder" }),
      ],
    );
    await page.goto(`${school.base}/check/${id}`);
    await page.getByRole("textbox", { name: "What was written for train" }).fill("trane");
    await context.setOffline(true);
    await page.getByRole("textbox", { name: "What was written for ship" }).fill("ship");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Next: On paper, for a group" }).tap();
    const cells = page.getByRole("table").getByRole("button");
    await expect(cells).toHaveCount(6);
    for (const times of [1, 2]) for (let tap = 0; tap < times; tap++) await cells.nth(times - 1).tap();
    await expect(cells.nth(1)).toHaveText(/^2 /);
    await context.setOffline(false);
    await saved(page);
    const words = (await stored(school, id)).filter((entry) => entry.item);
    expect(words.map((entry) => [entry.item, entry.outcome])).toEqual([
      ["train", "other"],
      ["ship", "right"],
    ]);
    const sheet = await stored(school, id, 1);
    const stands = sheet.filter((entry) => entry.item && !sheet.some((other) => other.voids === entry.id));
    expect(stands).toHaveLength(2);
  });

  test("the marks stand at the hand that the device is set to, and holding one gives the rarer mark", async ({
    page,
    school,
  }) => {
    await page.goto(`${school.base}/settings`);
    await page.getByRole("radio", { name: "left" }).check();
    const { id } = await sit(school, ["Ines K."], [part("words", { most: 3 })]);
    await page.clock.install();
    await page.goto(`${school.base}/check/${id}`);
    await asked(page);
    const place = page.getByRole("button", { name: /^Right at sight/ });
    const box = await place.boundingBox();
    expect(box?.x ?? 999).toBeLessThan(60);
    await place.dispatchEvent("pointerdown");
    await page.clock.fastForward(600);
    await place.dispatchEvent("pointerup");
    await expect(page.getByText(/^2 of /)).toBeVisible();
    await saved(page);
    expect((await stored(school, id)).map((entry) => entry.outcome)).toEqual(["ownWay"]);
  });
});

test("a misread word is explained at once, and the adult can name another part", async ({ page, school }) => {
  await marksAlone(school);
  const { id } = await sit(
    school,
    ["Tilda N."],
    [part("words", { scope: "picked", picked: ["ch u n k", "s t o p"], strategy: "inOrder" })],
  );
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByTestId("card")).toHaveText("chunk");
  await page.keyboard.press("4");
  await page.getByLabel("What was said or written").fill("shunk");
  await page.keyboard.press("Enter");
  await expect(page.getByText("ch /tʃ/ was read as /ʃ/.", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "Another part failed" }).click();
  const parts = page.getByRole("group", { name: "Which parts of chunk failed" });
  await expect(parts.getByRole("button", { name: "ch" })).toHaveAttribute("aria-pressed", "true");
  await expectAccessible(page);
  await parts.getByRole("button", { name: "ch" }).click();
  await parts.getByRole("button", { name: "k", exact: true }).click();
  await parts.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("k /k/ failed, as the adult heard it", { exact: false })).toBeVisible();
  await page.keyboard.press("q");
  await expect(page.getByText("It is the first sound of a cluster that fell away.", { exact: false })).toBeVisible();
  await saved(page);
  const log = await stored(school, id);
  expect(log.map((entry) => [entry.outcome, entry.heard ?? null, entry.units ?? null])).toEqual(
    expect.arrayContaining([
      ["wrong", "shunk", null],
      ["wrong", "shunk", [3]],
      ["wrong", "/t o p/", null],
    ]),
  );
  await page.keyboard.press("Enter");
  await expect(page.getByText("k failed", { exact: false }).or(page.getByText("Parts that failed"))).toBeVisible();
});

test("words and a sentence are typed in as they were written, and every unit is looked at", async ({
  page,
  school,
}) => {
  await marksAlone(school);
  const picked = ["train", "ship", "The ducks swim to the lock."];
  const { id } = await sit(
    school,
    ["Kezia D."],
    [part("dictation", { scope: "picked", picked, strategy: "inOrder" })],
  );
  await page.goto(`${school.base}/check/${id}`);
  const written = (item: string) => page.getByRole("textbox", { name: `What was written for ${item}` });
  await written("train").fill("trane");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Heard well", { exact: false })).toBeVisible();
  await expect(written("ship")).toBeFocused();
  await page.keyboard.type("ship");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "A letter turned round" }).nth(1).click();
  await page.keyboard.press("Tab");
  await written("The ducks swim to the lock.").fill("the ducks swimto lok");
  await page.keyboard.press("Enter");
  await expect(page.getByText("(6 words)")).toBeVisible();
  await expect(page.getByText("No capital at the start.", { exact: false })).toBeVisible();
  await expect(page.getByText("Left out: “the”.", { exact: false })).toBeVisible();
  await expect(page.getByText("No space in “swimto”.", { exact: false })).toBeVisible();
  await expectAccessible(page);
  await saved(page);
  const log = await stored(school, id);
  const stands = log.filter((entry) => entry.outcome !== "void" && !log.some((other) => other.voids === entry.id));
  expect(stands.map((entry) => [entry.item, entry.outcome, entry.heard ?? null])).toEqual([
    ["train", "other", "trane"],
    ["ship", "reversed", null],
    ["The ducks swim to the lock.", "wrong", "the ducks swimto lok"],
  ]);
  await page.reload();
  await expect(written("train")).toHaveValue("trane");
  await page.getByRole("button", { name: "See what this check says" }).click();
  await expect(page.getByText(/0 of 3 right at once, 2 /)).toBeVisible();
});

test("a minute: as many cards as it holds, the best of before, and the clock starts when the adult is ready", async ({
  page,
  school,
}) => {
  await marksAlone(school);
  await page.clock.install();
  const minute = part("card", { form: "minute" });
  const before = await sit(school, ["Sunil G."], [minute]);
  await page.goto(`${school.base}/check/${before.id}`);
  await page.getByRole("button", { name: "Start the minute" }).click();
  // From here on time passes as the test says, however long it takes.
  await page.clock.pauseAt(await page.evaluate(() => Date.now() + 100));
  for (let card = 0; card < 5; card++) {
    await asked(page);
    await page.clock.runFor(1000);
    await page.keyboard.press(card === 2 ? "5" : "1");
  }
  await page.clock.runFor(30_000);
  await expect(page.getByText(/\b2[4-6] s left/)).toBeVisible();
  await page.clock.runFor(30_000);
  await expect(page.getByText("4 right in the minute.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("4 of 5 right at once", { exact: false })).toBeVisible();
  await page.clock.runFor(2000);
  await page.clock.resume();
  const again = await sit(school, ["Sunil G."], [minute]);
  await page.goto(`${school.base}/check/${again.id}`);
  await expect(page.getByText("best before: 4", { exact: false })).toBeVisible();
});

test("after misses in a row stopping is suggested, with the reason; the adult decides", async ({ page, school }) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Jory P."], [part("card", { stopAfter: 3 }), part("names")]);
  await page.goto(`${school.base}/check/${id}`);
  for (let card = 0; card < 3; card++) {
    await asked(page);
    await page.keyboard.press("5");
  }
  await expect(page.getByText("No answer 3 times in a row.", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "Go on", exact: true }).click();
  await expect(page.getByText("No answer 3 times in a row.", { exact: false })).toHaveCount(0);
  for (let card = 0; card < 3; card++) await page.keyboard.press("5");
  await page.getByRole("status").getByRole("button", { name: "End this part" }).click();
  await expect(page.getByRole("heading", { name: /Letter names/ })).toBeVisible();
  await saved(page);
  expect((await stored(school, id)).find((entry) => entry.outcome === "stop")?.why).toBe("suggested");
});

test("a right answer over the school's threshold reads as slow, and the setting changes that", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/settings`);
  await page.getByRole("radio", { name: "over 2 seconds" }).check();
  await expect(page.getByText("Saved.", { exact: false })).toBeVisible();
  await expectAccessible(page);
  const { id } = await sit(school, ["Yara Q."], [part("card", { scope: "picked", picked: ["b=b"] })]);
  await page.clock.install();
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await page.clock.fastForward(2200);
  await page.keyboard.press("1");
  await expect(page.getByText(/right, slow \(\d+\.\d s\)/)).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("0 of 1 right at once, 1 slow.")).toBeVisible();
  await page.goto(`${school.base}/settings`);
  await page.getByRole("radio", { name: "only what the adult marks so" }).check();
  await expect(page.getByText("Saved.", { exact: false })).toBeVisible();
  await page.goto(`${school.base}/check/${id}/result`);
  await expect(page.getByText("1 of 1 right at once.")).toBeVisible();
});
