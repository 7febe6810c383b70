import { askedAs, type KindId } from "./kinds.ts";

export interface CheckSource {
  readonly kind: "check";
  readonly checkId: string;
}
/** A word of a text that was read. Only what went wrong in a text is an answer, not each word of it. */
export interface ReadingSource {
  readonly kind: "reading";
  readonly readingId: string;
}
/** What an adult said after a session; the session and the report are null once they are gone. */
export interface SessionSource {
  readonly kind: "session";
  readonly sessionId: string | null;
  readonly reportId: string | null;
}

/** What a teacher knows of a child without having asked: it counts as an answer would, and wears off. */
export interface JudgementSource {
  readonly kind: "judgement";
}

/** Where a mark comes from. Open by kind: what comes to ask children in another way adds its own. */
export type Source = CheckSource | ReadingSource | SessionSource | JudgementSource;

/**
 * With which help an item was answered.
 * - `none`: alone
 * - `hint`: after a cue, the first sound or a keyword
 * - `model`: after the adult had done it first
 * - `together`: with others who answered at the same time
 */
export const helps = ["none", "hint", "model", "together"] as const;
export type Help = (typeof helps)[number];

/** What every answer in a check has: its kind, where it comes from, how it was asked, and that the child was alone with it. */
export function inCheck<K extends KindId>(kind: K, checkId: string) {
  return { kind, source: { kind: "check", checkId }, help: "none", way: askedAs(kind) } as const;
}

/** As `inCheck`, for what an adult says of a child after a session. */
export function inSession<K extends KindId>(kind: K, sessionId: string, reportId: string | null) {
  return { kind, source: { kind: "session", sessionId, reportId }, help: "none", way: askedAs(kind) } as const;
}

/** As `inCheck`, for what a teacher says of a child out of what she knows. */
export function asJudged<K extends KindId>(kind: K) {
  return { kind, source: { kind: "judgement" }, help: "none", way: askedAs(kind) } as const;
}

/**
 * The check that an entry of the log was made in; null for one that was not, and for an undo, which is of what it takes
 * back.
 */
export function checkOf(entry: { readonly outcome?: string; readonly source?: Source }): string | null {
  return entry.source?.kind === "check" ? entry.source.checkId : null;
}
