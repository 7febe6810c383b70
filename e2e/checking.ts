import { randomUUID } from "node:crypto";
import type { Page } from "@playwright/test";
import { childNamed, expect, type School } from "./school.ts";

/** An entry of the log as the server has it. */
export interface Stored {
  readonly id: string;
  readonly outcome: string;
  readonly kind?: string;
  readonly item?: string;
  readonly heard?: string | null;
  readonly pass?: number;
  readonly tags?: readonly string[];
  readonly units?: readonly number[] | null;
  readonly voids?: string;
  readonly why?: string;
  readonly text?: string;
  readonly ms?: number | null;
  readonly markedBy: string;
}

export interface Sat {
  readonly id: string;
  readonly endedAt: string | null;
  readonly children: readonly { readonly id: string; readonly name: string }[];
  readonly checks: readonly {
    readonly id: string;
    readonly childId: string;
    readonly kind: string;
    readonly items: readonly string[];
    readonly setup: { readonly sheet: Record<string, readonly { readonly text: string; readonly from?: string }[]> };
    readonly answers: readonly Stored[];
  }[];
}

const plain = {
  scope: "all",
  most: 12,
  recentSteps: 3,
  picked: [] as string[],
  strategy: "shuffled",
  stopAfter: 5,
  form: "deck",
  cases: "small",
  blocks: ["three", "fourEnd", "fourStart"],
  madeUp: true,
  tasks: ["sounds", "apart", "where"],
  choices: 6,
  sentence: true,
  mix: ["card", "words", "exception"],
  minutes: 5,
};

/** A part of a plan; what is not said is as above. */
export function part(kind: string, change: Partial<typeof plain> = {}) {
  return { kind, ...plain, ...change };
}

async function sent(school: School, method: string, path: string, body: object): Promise<unknown> {
  const response = await fetch(school.base + path, {
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return response.json();
}

/** Begins a sitting of these children by the API. */
export async function sit(
  school: School,
  names: readonly string[],
  parts: readonly object[],
  name = "Look",
): Promise<Sat> {
  const children = await Promise.all(names.map((one) => childNamed(school, one)));
  return (await sent(school, "POST", "/api/sittings", {
    id: randomUUID(),
    name,
    sections: parts,
    children: children.map((child, at) => ({
      childId: child.id,
      seed: at + 5,
      checkIds: parts.map(() => randomUUID()),
    })),
    startedAt: new Date().toISOString(),
  })) as Sat;
}

/**
 * The adult's mark alone decides what is slow, however long a test takes over a card, and each sound of a spelling has a card
 * of its own, so that a press is a mark.
 */
export async function marksAlone(school: School, change: object = { severalSounds: "word" }): Promise<void> {
  const { checks, version } = await school.get<{ checks: object; version: number }>("/api/school");
  await sent(school, "PUT", "/api/school/checks", { version, checks: { ...checks, slowAfter: 0, ...change } });
}

export const sitting = (school: School, id: string) => school.get<Sat>(`/api/sittings/${id}`);

/** What the server has of a check, in order of marking. */
export async function stored(school: School, sittingId: string, check = 0): Promise<readonly Stored[]> {
  return (await sitting(school, sittingId)).checks[check]?.answers ?? [];
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByText("all marks saved")).toBeVisible();
}

/** The text of what is asked: the card, or what is to be said. */
export async function asked(page: Page): Promise<string> {
  const shown = page.getByTestId("card").or(page.getByTestId("say")).first();
  await expect(shown).toBeVisible();
  return (await shown.textContent()) ?? "";
}
