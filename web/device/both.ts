import { useSyncExternalStore } from "react";
import { Refused } from "./api.ts";

/** What is different in two states of one thing: what it is about, and how each says it. */
interface Difference {
  readonly about: string;
  readonly mine: string;
  readonly theirs: string;
}

/** A question to the person: of two states of one thing, which is kept. */
export interface Question {
  readonly says: string;
  readonly differences: readonly Difference[];
  /** What keeping both would be, where that makes sense. */
  readonly both: string | null;
  readonly answer: (chosen: "mine" | "theirs" | "both") => void;
}

let asked: Question | null = null;
const watchers = new Set<() => void>();
function ask(question: Question | null): void {
  asked = question;
  for (const watcher of watchers) watcher();
}

/** The question that waits for an answer, for the part that shows it. */
export function useBothQuestion(): Question | null {
  return useSyncExternalStore(
    (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    () => asked,
  );
}

export interface Over<Content, Saved> {
  readonly content: Content;
  /** The version that it was made from. */
  readonly onto: number;
  readonly send: (content: Content, onto: number) => Promise<Saved>;
  /** A state in words, part by part; parts that say the same are not shown. */
  readonly says: (content: Content) => Readonly<Record<string, string>>;
  readonly both?: {
    /** On the button: `Keep the children of both`. */
    readonly says: string;
    readonly keep: (mine: Content, theirs: Content, onto: number) => Promise<Saved>;
  };
}

/**
 * Saves what was made from some version. When someone else changed it meanwhile, both states are shown and the person says
 * which is kept; nothing is written over unseen, however often it changes.
 * @returns what was saved; undefined when theirs was kept
 * @example await saveOver({ content, onto: group.version, send: (mine, onto) => call(saveGroup, …), says })
 */
export async function saveOver<Content, Saved>(over: Over<Content, Saved>): Promise<Saved | undefined> {
  let [onto, send] = [over.onto, () => over.send(over.content, onto)];
  for (;;) {
    try {
      return await send();
    } catch (error) {
      if (!(error instanceof Refused) || !error.problem.both) throw error;
      const theirs = { ...over.content, ...(error.problem.both.theirs as Partial<Content>) };
      const { version } = error.problem.both;
      const chosen = await choose(error.message, over, theirs);
      if (chosen === "theirs") return undefined;
      onto = version;
      const { both } = over;
      send =
        chosen === "both" && both
          ? () => both.keep(over.content, theirs, version)
          : () => over.send(over.content, version);
    }
  }
}

async function choose<Content, Saved>(says: string, over: Over<Content, Saved>, theirs: Content) {
  const [my, their] = [over.says(over.content), over.says(theirs)];
  const differences = [...new Set([...Object.keys(my), ...Object.keys(their)])]
    .map((about) => ({ about, mine: my[about] ?? "", theirs: their[about] ?? "" }))
    .filter((one) => one.mine !== one.theirs);
  if (differences.length === 0) {
    if (JSON.stringify(over.content) === JSON.stringify(theirs)) return "mine";
    differences.push({ about: "The rest of it", mine: "as you have it", theirs: "as they have it" });
  }
  return new Promise<"mine" | "theirs" | "both">((resolve) =>
    ask({
      says,
      differences,
      both: over.both?.says ?? null,
      answer: (chosen) => {
        ask(null);
        resolve(chosen);
      },
    }),
  );
}
