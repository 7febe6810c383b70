import type { CSSProperties } from "react";
import type { State } from "#core/mastery";
import { ipa, showGrapheme, splitGpc } from "#core/phonics";
import type { Unit } from "#core/words";

const shapeOf: Record<State, string> = {
  secure: "leaf-secure",
  unsteady: "leaf-unsteady",
  "not sure yet": "leaf-unsure",
  gap: "leaf-gap",
  "not checked": "leaf-unchecked",
  "not taught": "leaf-untaught",
};

/** The class name of a state's mark, for places that draw thousands of them. */
export function leafClass(state: State): string {
  return `leaf-mark ${shapeOf[state]}`;
}

/** How light a mark is, by the chance that it stands for, 0 to 1. */
export function leafStyle(chance: number): CSSProperties {
  return { "--chance": chance } as CSSProperties;
}

export function LeafMark({ state, chance }: { state: State; chance?: number | undefined }) {
  return (
    <span className={leafClass(state)} style={chance === undefined ? undefined : leafStyle(chance)} aria-hidden />
  );
}

/** The six states with their marks. */
export function Legend() {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm text-soft" aria-label="What the marks mean">
      {(["secure", "not sure yet", "unsteady", "gap", "not checked"] as const).map((state) => (
        <li key={state} className="flex items-center gap-1.5">
          <LeafMark state={state} /> {state}
        </li>
      ))}
      <li>blank: not taught</li>
      <li>the darker, the likelier</li>
    </ul>
  );
}

/** A spelling as a small card, with its sound. */
export function Spelling({ gpc, sound = true }: { gpc: string; sound?: boolean }) {
  const { grapheme, sound: key } = splitGpc(gpc);
  return (
    <span className="inline-flex items-baseline gap-1 whitespace-nowrap rounded border border-line bg-sheet px-1.5 py-0.5 leading-tight">
      <span className="font-child text-[1.05em]">{showGrapheme(grapheme)}</span>
      {sound && <span className="text-[max(0.8em,0.8rem)] text-soft">{ipa(key)}</span>}
    </span>
  );
}

export function Spellings({ gpcs, none = "none" }: { gpcs: readonly string[]; none?: string }) {
  if (gpcs.length === 0) return <span className="text-soft">{none}</span>;
  return (
    <span className="inline-flex flex-wrap gap-1 align-middle">
      {gpcs.map((gpc) => (
        <Spelling key={gpc} gpc={gpc} />
      ))}
    </span>
  );
}

interface Letter {
  readonly key: string;
  readonly text: string;
  readonly look: string;
}

/** The units as runs of letters in writing order, each with the look of its bracket. */
function lettersOf(units: readonly Unit[], unexpected: ReadonlySet<number>, marked: number): Letter[] {
  const letters: Letter[] = [];
  let closing: Letter | undefined;
  units.forEach((unit, at) => {
    const [opening = "", late] = unit.grapheme.split("_");
    const bracket = unexpected.has(at) ? " wavy" : unit.sound === "" ? " no-sound" : "";
    const look = `${bracket}${at === marked ? " marked" : ""}`;
    letters.push({
      key: `${at}`,
      text: opening,
      look: `${late ? "split-open" : closing ? "split-under" : ""}${look}`,
    });
    if (closing) letters.push(closing);
    closing = late ? { key: `${at}e`, text: late, look: `split-close${look}` } : undefined;
  });
  if (closing) letters.push(closing);
  return letters;
}

/** The word's own writing of its letters, so that capitals stay; signs between them go to the letter before. */
function asWritten(text: string, letters: readonly Letter[]): readonly Letter[] {
  const shown = [...text];
  let at = 0;
  return letters.map((letter, i) => {
    let own = "";
    for (let taken = 0; taken < [...letter.text].length && at < shown.length; at++) {
      own += shown[at];
      if (!/['’ʼ-]/.test(shown[at] ?? "")) taken++;
    }
    while (at < shown.length && /['’ʼ-]/.test(shown[at] ?? "")) own += shown[at++];
    return { ...letter, text: i === letters.length - 1 ? own + shown.slice(at).join("") : own };
  });
}

interface BracketWanted {
  readonly text: string;
  readonly units: readonly Unit[];
  /** Indexes of units that are not as expected: their bracket is wavy. */
  readonly unexpected?: readonly number[] | undefined;
  /** Index of the one unit to point out, as the changed one of a chain. */
  readonly marked?: number | undefined;
}

/** A word with a thin bracket under each of its sounds; a split spelling's bracket dips under what stands between. */
export function BracketWord({ text, units, unexpected = [], marked = -1 }: BracketWanted) {
  return (
    <span className="bracketed font-child">
      <span className="sr-only">{text}</span>
      {asWritten(text, lettersOf(units, new Set(unexpected), marked)).map(({ key, text: letters, look }) => (
        <span key={key} className={look} aria-hidden>
          {letters}
        </span>
      ))}
    </span>
  );
}
