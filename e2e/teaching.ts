import type { Page } from "@playwright/test";
import { isLong, post, type School } from "./school.ts";

/** An answer as the school gives it out. */
export interface Answer {
  readonly id: string;
  readonly outcome: string;
  readonly item?: string;
  readonly help?: string;
  readonly heard?: string | null;
  readonly voids?: string;
  readonly source?: { readonly kind: string; readonly sessionId?: string | null };
}

/** The routines that ship. */
const routines = ["usual", "short", "review", "hearing", "changing", "sorting", "reading", "mixed"];

/** Those that are taught whole, by keys alone or by touch alone: each in one of both ways, in the long run in both. */
export const routinesBy = (way: "keys" | "touch"): string[] =>
  isLong ? routines : routines.filter((_, at) => at % 2 === (way === "keys" ? 0 : 1));

export interface Group {
  readonly id: string;
  readonly name: string;
  readonly members: readonly { readonly childId: string; readonly name: string }[];
}

export const groupNamed = async (school: School, name: string) =>
  (await school.get<Group[]>("/api/groups")).find((one) => one.name === name) as Group;

/** Plans a session today. */
export async function plan(school: School, group: Group, more: object = {}): Promise<string> {
  const id = crypto.randomUUID();
  const { today } = await school.get<{ today: string }>("/api/school");
  await post(school, "/api/sessions", { id, groupId: group.id, heldOn: today, target: null, seed: 5, ...more });
  return id;
}

/** A session with these parts alone, in which every child is asked. */
export async function withParts(
  school: School,
  groupName: string,
  parts: readonly object[],
  more: object = {},
): Promise<string> {
  const id = await plan(school, await groupNamed(school, groupName));
  const { version, plan: made } = await school.get<{ version: number; plan: object }>(`/api/sessions/${id}`);
  const its = parts.map((one) => ({ minutes: 3, how: "", ...one }));
  await send(school, "PATCH", `/api/sessions/${id}`, {
    version,
    plan: { ...made, cardsOnly: [], parts: its, ...more },
  });
  return id;
}

/** Changes how the school checks. */
export async function setChecks(school: School, change: object): Promise<void> {
  const { checks, version } = await school.get<{ checks: object; version: number }>("/api/school");
  await send(school, "PUT", "/api/school/checks", { version, checks: { ...checks, ...change } });
}

/** Sets how letters stand for a child. */
export async function setLetters(school: School, childId: string, letters: object): Promise<void> {
  const { child } = await school.get<{ child: { version: number } }>(`/api/children/${childId}`);
  await send(school, "PATCH", `/api/children/${childId}`, { version: child.version, ...letters });
}

async function send(school: School, method: "PATCH" | "PUT", path: string, body: object): Promise<void> {
  const answer = await fetch(`${school.base}${path}`, {
    method,
    headers: { "content-type": "application/json", origin: school.base },
    body: JSON.stringify(body),
  });
  if (answer.status !== 200) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
}

/** What the school has of a session: answers that stand, by all children of its group. */
export async function answersOf(school: School, group: Group, sessionId: string): Promise<readonly Answer[]> {
  const all: Answer[] = [];
  for (const { childId } of group.members) {
    const { answers } = await school.get<{ answers: Answer[] }>(`/api/children/${childId}/export`);
    const voided = new Set(answers.flatMap(({ voids }) => voids ?? []));
    all.push(...answers.filter(({ id, source }) => source?.sessionId === sessionId && !voided.has(id)));
  }
  return all;
}

/** Ids of the marks that this device made in a session and that stand. */
export const marksHere = (page: Page, sessionId: string) =>
  page.evaluate(
    (id) =>
      new Promise<string[]>((done) => {
        const open = indexedDB.open("keen-sapling");
        open.onsuccess = () => {
          const asked = open.result.transaction("marks").objectStore("marks").index("sitting").getAll(id);
          asked.onsuccess = () => {
            const rows = asked.result.map((row: { answer: { id: string; voids?: string } }) => row.answer);
            const gone = new Set(rows.flatMap(({ voids }) => voids ?? []));
            done(rows.filter((row) => !row.voids && !gone.has(row.id)).map((row) => row.id));
          };
        };
      }),
    sessionId,
  );

export const begin = async (page: Page, school: School, id: string) => {
  await page.goto(`${school.base}/sessions/${id}/teach`);
  await page.getByRole("button", { name: "Begin" }).click();
};
export const part = (page: Page, name: RegExp) =>
  page.getByRole("list", { name: "Parts" }).getByRole("button", { name }).first().click();
export const now = (page: Page) => page.getByRole("region", { name: "Now" });

/** Gets a code for another device, by keys. @returns where that shows what the children see */
export async function lookOf(page: Page, school: School): Promise<string> {
  await page.keyboard.press("v");
  await page.getByRole("button", { name: "Get a code for another device" }).press("Enter");
  const code = ((await page.locator("output").textContent()) ?? "").replaceAll(/\D/g, "");
  await page.keyboard.press("Escape");
  return `${school.base}/look?code=${code}`;
}
