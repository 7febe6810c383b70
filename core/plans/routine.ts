import { type Doer, doerNames, doers, kindsOfPart, type PartKind, partKinds } from "./kinds.ts";

/** A part as a routine has it. */
export interface RoutinePart {
  readonly kind: PartKind;
  readonly minutes: number;
  readonly who: Doer;
  /** In the school's own words; empty where the tool's will do. */
  readonly how: string;
}

/** How a school holds its sessions: parts in an order of its own. A kind may come twice. */
export interface Routine {
  readonly name: string;
  /** For what it is, in a line. */
  readonly about: string;
  readonly parts: readonly RoutinePart[];
}

export const MOST_PARTS = 14;
export const MOST_PART_MINUTES = 60;

const part = (kind: PartKind, minutes = kindsOfPart[kind].minutes): RoutinePart => ({
  ...{ kind, minutes, who: kindsOfPart[kind].who, how: "" },
});

/** Routines that ship, by ids that stay. The first is what a group has that no one has chosen one for. */
export const shippedRoutines: Readonly<Record<string, Routine>> = {
  usual: {
    name: "A new spelling, 15 minutes",
    about: "Revisit, teach one thing, read and write words with it, a sentence.",
    parts: [
      ...[part("revisit"), part("teach"), part("readWords"), part("exceptionWords")],
      ...[part("writeWords"), part("sentence"), part("lastLook")],
    ],
  },
  short: {
    name: "Short, 10 minutes",
    about: "What must not be left out when there is little time.",
    parts: [part("revisit", 2), part("teach", 2), part("readWords", 3), part("writeWords", 2), part("lastLook", 1)],
  },
  review: {
    name: "Review only, 15 minutes",
    about: "No new spelling: what is fading, words and a text with it.",
    parts: [
      ...[part("revisit", 4), part("readWords", 3), part("exceptionWords", 2)],
      ...[part("writeWords", 3), part("readSentence", 2), part("lastLook", 1)],
    ],
  },
  hearing: {
    name: "By ear first, 20 minutes",
    about: "The sound is heard before its spelling is seen; words are built before they are written.",
    parts: [
      ...[part("revisit", 2), part("hear", 2), part("teach", 3), part("blend", 2), part("build", 3)],
      ...[part("readWords", 3), part("sentence", 3), part("lastLook", 2)],
    ],
  },
  changing: {
    name: "One change at a time, 20 minutes",
    about: "Chains and pairs, for children who mix up sounds or lose one in a cluster.",
    parts: [
      ...[part("revisit", 2), part("teach", 3), part("chain", 4), part("pairs", 2), part("readWords", 3)],
      ...[part("readAgain", 1), part("writeWords", 3), part("lastLook", 2)],
    ],
  },
  sorting: {
    name: "Sort the spellings, 20 minutes",
    about: "For a sound with several spellings: words are sorted, read at speed and used.",
    parts: [
      ...[part("revisit", 2), part("teach", 3), part("readWords", 3), part("sort", 4), part("readAgain", 2)],
      ...[part("sentence", 3), part("yesNo", 1), part("lastLook", 2)],
    ],
  },
  reading: {
    name: "Towards a text, 30 minutes",
    about: "Words and sentences lead to a text that is read alone.",
    parts: [
      ...[part("revisit", 3), part("teach", 4), part("blend", 2), part("readWords", 4), part("exceptionWords", 2)],
      ...[part("readSentence", 2), part("text", 8), part("writeWords", 3), part("lastLook", 2)],
    ],
  },
  mixed: {
    name: "A bit of all, 30 minutes",
    about: "Hearing, blending, made-up words, a chain, writing and questions.",
    parts: [
      ...[part("revisit", 2), part("hear", 2), part("teach", 4), part("blend", 2), part("readWords", 4)],
      ...[part("madeUp", 2), part("chain", 4), part("writeWords", 4), part("yesNo", 2), part("sentence", 3)],
      part("lastLook", 1),
    ],
  },
};
/** The routine of a group that no one has chosen one for. */
export const USUAL = "usual";

export function minutesOfRoutine({ parts }: Pick<Routine, "parts">): number {
  return parts.reduce((sum, { minutes }) => sum + minutes, 0);
}

/** True when a routine teaches something new: without such a part a session is review alone. */
export function teachesNew({ parts }: Pick<Routine, "parts">): boolean {
  return parts.some(({ kind }) => kind === "teach");
}

/** What is wrong with a routine, a sentence each; none where it can be held. */
export function routineFaults({ name, parts }: Routine): string[] {
  return [
    ...(name.trim() === "" ? ["Give the routine a name."] : []),
    ...(parts.length === 0 ? ["A routine needs a part at least."] : []),
    ...(parts.length > MOST_PARTS ? [`A routine has at most ${MOST_PARTS} parts.`] : []),
    ...(parts.length > 0 && minutesOfRoutine({ parts }) === 0 ? ["A routine of no minutes cannot be held."] : []),
  ];
}

/**
 * A routine as Markdown that a person can read and change: a heading, a line, and an item for each part.
 * @example - Read words: 3 min, one child at a time. Nod when you are ready.
 */
export function routineAsMarkdown({ name, about, parts }: Routine): string {
  const line = ({ kind, minutes, who, how }: RoutinePart) =>
    `- ${kindsOfPart[kind].title}: ${minutes} min, ${doerNames[who]}.${how ? ` ${how}` : ""}`;
  return [`# ${name}`, "", ...(about ? [about, ""] : []), ...parts.map(line), ""].join("\n");
}

/** A routine that was read, and what was left out of it. */
export interface RoutineRead {
  readonly routine: Routine;
  readonly leftOut: readonly string[];
}

const LONGEST = 50_000;
const PART = /^[-*]\s*(.+?):\s*(\d+)\s*min(?:utes?)?\b,?\s*(.*)$/i;

/** Reads a routine from Markdown as it is written here, or from JSON. What cannot be read is told; the rest stays. */
export function readRoutine(text: string): RoutineRead | { readonly trouble: string } {
  if (text.length > LONGEST) return { trouble: "This is too long for a routine. Nothing was read." };
  const trimmed = text.trim();
  return trimmed.startsWith("{") ? fromJson(trimmed) : fromMarkdown(trimmed);
}

function fromMarkdown(text: string): RoutineRead | { readonly trouble: string } {
  const leftOut: string[] = [];
  const parts: RoutinePart[] = [];
  const about: string[] = [];
  let name = "";
  for (const line of text.split(/\r?\n/)) {
    const words = line.trim();
    const found = PART.exec(words);
    if (words === "") continue;
    if (words.startsWith("#")) name ||= words.replace(/^#+\s*/, "").slice(0, 60);
    else if (!found) (words.startsWith("-") || words.startsWith("*") ? leftOut : about).push(words);
    else {
      const [, title = "", minutes = "", rest = ""] = found;
      const kind = partKinds.find((one) => kindsOfPart[one].title.toLowerCase() === title.toLowerCase());
      const who = doers.find((one) => rest.toLowerCase().startsWith(doerNames[one]));
      if (!kind) leftOut.push(words);
      else {
        const how = who ? rest.slice(doerNames[who].length).replace(/^\.\s*/, "") : rest;
        parts.push({
          kind,
          minutes: within(Number(minutes)),
          who: who ?? kindsOfPart[kind].who,
          how: how.slice(0, 400),
        });
      }
    }
  }
  return told({ name, about: about.join(" ").slice(0, 200), parts }, leftOut);
}

function fromJson(text: string): RoutineRead | { readonly trouble: string } {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return { trouble: "This file begins like JSON and cannot be read as such. Nothing was kept." };
  }
  const { name, about, parts } = read as Record<string, unknown>;
  const leftOut: string[] = [];
  const list = (Array.isArray(parts) ? parts : []).flatMap((one: unknown): RoutinePart[] => {
    const { kind, minutes, who, how } = (one ?? {}) as Record<string, unknown>;
    const found = partKinds.find((each) => each === kind);
    if (!found) {
      leftOut.push(String(kind ?? "a part without a kind").slice(0, 60));
      return [];
    }
    return [
      {
        kind: found,
        minutes: within(Number(minutes)),
        who: doers.find((each) => each === who) ?? kindsOfPart[found].who,
        how: typeof how === "string" ? how.trim().slice(0, 400) : "",
      },
    ];
  });
  const words = (value: unknown, most: number) => (typeof value === "string" ? value.trim().slice(0, most) : "");
  return told({ name: words(name, 60), about: words(about, 200), parts: list }, leftOut);
}

function within(minutes: number): number {
  return Number.isFinite(minutes) ? Math.max(0, Math.min(MOST_PART_MINUTES, Math.round(minutes))) : 0;
}

function told(routine: Routine, leftOut: readonly string[]): RoutineRead | { readonly trouble: string } {
  const parts = routine.parts.slice(0, MOST_PARTS);
  if (parts.length === 0)
    return { trouble: "No part of a session stands in this file. A line for each, as “- Read words: 3 min”." };
  const tooMany = routine.parts.slice(MOST_PARTS).map(({ kind }) => kindsOfPart[kind].title);
  return {
    routine: { ...routine, name: routine.name || "A routine", parts },
    leftOut: [...leftOut, ...tooMany],
  };
}
