import { doerNames, kindsOfPart } from "./kinds.ts";
import { doers, partKinds } from "./part-kinds.ts";
import { MOST_PART_MINUTES, MOST_PARTS, type Routine, type RoutinePart } from "./routine.ts";

const marksSay = (marks: boolean) => (marks ? "with marks" : "without marks");

/**
 * A routine as Markdown that a person can read and change: a heading, a line, and an item for each part.
 * @example - Read words: 3 min, one child at a time. Nod when you are ready.
 */
export function routineAsMarkdown({ name, about, parts }: Routine): string {
  const line = ({ kind, minutes, who, how, marks }: RoutinePart) =>
    `- ${kindsOfPart[kind].title}: ${minutes} min, ${doerNames[who]}${marks === undefined ? "" : `, ${marksSay(marks)}`}.${how ? ` ${how}` : ""}`;
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
        const after = who ? rest.slice(doerNames[who].length) : rest;
        const said = /^[,\s]*(with|without) marks\b/i.exec(after);
        const how = (said ? after.slice(said[0].length) : after).replace(/^\.\s*/, "");
        parts.push({
          kind,
          ...(said ? { marks: said[1]?.toLowerCase() === "with" } : {}),
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
    const { kind, minutes, who, how, marks } = (one ?? {}) as Record<string, unknown>;
    const found = partKinds.find((each) => each === kind);
    if (!found) {
      leftOut.push(String(kind ?? "a part without a kind").slice(0, 60));
      return [];
    }
    return [
      {
        kind: found,
        ...(typeof marks === "boolean" ? { marks } : {}),
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
