import { useSyncExternalStore } from "react";
import { addressOf, getSitting } from "#contract";
import { box } from "./box.ts";

/** An answer of the server as this device kept it, for when the server cannot be reached. */
export interface KeptPage {
  readonly content: unknown;
  /** When it came, in milliseconds. */
  readonly keptAt: number;
}

/** True once whoever was here has gone: what was asked for them and comes late is not kept any more. */
let left = false;

/** Keeps an answer of the server on the device under its address. */
export async function keep(address: string, content: unknown): Promise<void> {
  const open = await box;
  if (!left) await open.put("pages", { address, content, keptAt: Date.now() });
}

/**
 * Whoever was here has gone: all answers are forgotten, of open checks too, and until the page begins anew none is kept. Marks
 * and what is on its way stay; who comes in next has a line, and asks for the check again.
 */
export async function forgetForGood(): Promise<void> {
  left = true;
  await forgetUnder((address) => address.startsWith(FIRST_PARTS));
}

/** Forgets what was kept under this address. */
export async function forget(address: string): Promise<void> {
  await (await box).delete("pages", address);
}

export async function keptPage(address: string): Promise<KeptPage | undefined> {
  return (await box).get("pages", address);
}

const FIRST_PARTS = "/api/";
const LONG = 14 * 86_400_000;
/** So many answers are kept at most; the oldest go first. */
const MOST_KEPT = 300;
const [sittings = "-"] = addressOf(getSitting, { id: "-" }).split("-");

/** Forgets what the server said and was kept here, after a child was erased: its name may stand in any of it. */
export async function forgetAnswers(): Promise<void> {
  await forgetUnder(isAnswer);
}

async function forgetUnder(is: (address: string) => boolean): Promise<void> {
  const pages = await (await box).getAll("pages");
  await Promise.all(pages.filter(({ address }) => is(address)).map(({ address }) => forget(address)));
}

/** Forgets everything that is kept here and speaks of one of these, open checks and drafts too. @param ids of children */
export async function forgetNaming(ids: readonly string[]): Promise<void> {
  const pages = await (await box).getAll("pages");
  const named = pages.filter(({ address, content }) => {
    const text = `${address} ${JSON.stringify(content)}`;
    return ids.some((id) => text.includes(id));
  });
  await Promise.all(named.map(({ address }) => forget(address)));
}

/**
 * Forgets answers that were kept for two weeks, and the oldest of too many. @returns the sittings that went
 */
export async function forgetOldAnswers(): Promise<readonly string[]> {
  const pages = (await (await box).getAll("pages"))
    .filter(({ address }) => address.startsWith(FIRST_PARTS))
    .sort((one, other) => other.keptAt - one.keptAt);
  const old = pages.filter(({ keptAt }, at) => at >= MOST_KEPT || Date.now() - keptAt > LONG);
  await Promise.all(old.map(({ address }) => forget(address)));
  return old.flatMap(({ address }) => (address.startsWith(sittings) ? [address.slice(sittings.length)] : []));
}

/** A sitting is needed to go on with its check; it goes with that. */
function isAnswer(address: string): boolean {
  return address.startsWith(FIRST_PARTS) && !address.startsWith(sittings);
}

/** What of that which is on the screen came from the device, because the server could not be reached. */
const old = new Map<string, number>();
const shown = new Map<string, number>();
const listeners = new Set<() => void>();

function told(): void {
  for (const listener of listeners) listener();
}

/** Says of an address how old its content is, or with null that the server has just answered. */
export function setAge(address: string, keptAt: number | null): void {
  if (keptAt === null ? !old.delete(address) : old.get(address) === keptAt) return;
  if (keptAt !== null) old.set(address, keptAt);
  told();
}

export function isOld(address: string): boolean {
  return old.has(address);
}

/** Counts an address among those on the screen, until what it returns is called. */
export function show(address: string): () => void {
  shown.set(address, (shown.get(address) ?? 0) + 1);
  told();
  return () => {
    const left = (shown.get(address) ?? 1) - 1;
    if (left > 0) shown.set(address, left);
    else shown.delete(address);
    told();
  };
}

function oldestShown(): number | null {
  const ages = [...shown.keys()].flatMap((address) => old.get(address) ?? []);
  return ages.length > 0 ? Math.min(...ages) : null;
}

/** When the oldest of what stands on the screen came from the server; null when all of it is of now. */
export function useAge(): number | null {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, oldestShown);
}
