import type { CSSProperties } from "react";
import type { ChildLetters, FaceBody } from "#contract";

/** How much of the window the child's face may take: all of it, or the upper part of the desk. */
export type Room = "window" | "desk";

const lineSize: Record<Room, string> = { window: "min(84px, 9vw)", desk: "min(44px, 7vw)" };

/** How the letters of a word look of which one spelling is asked: it alone has a bracket. */
const looks = {
  asked: "asked",
  open: "asked split-open",
  under: "split-under no-sound text-soft",
  underAsked: "split-under",
  close: "asked split-close",
  other: "no-sound text-soft",
  hidden: "no-sound invisible",
} as const;

/** A long word keeps to one line: it shrinks with its letters. */
export function wordSize(text: string, room: Room): string {
  const width = room === "window" ? 150 : 110;
  return `clamp(64px, ${Math.round(width / Math.max(5, text.length))}vw, ${room === "window" ? "40vh" : "22vh"})`;
}

const scales = { usual: 1, larger: 1.25, largest: 1.5 } as const;
const gaps = { usual: 0, wider: 0.06, widest: 0.14 } as const;

/** Width of a letter, and of the space between two sounds that stand as far apart as they go, in em. */
const LETTER = 0.58;
const BETWEEN = 0.5;

/** What has to stand in one line: so many letters, and so many spaces between sounds. */
interface InLine {
  readonly letters: number;
  readonly spaces?: number;
}

/** Letters as they stand for a child, as large as fits where they stand in one line, and as far apart as they should. */
export function lettersOf(look: ChildLetters | undefined, size: string, inLine?: InLine): CSSProperties {
  const gap = look ? gaps[look.letterSpacing] : 0;
  const wanted = look ? `calc(${size} * ${scales[look.letterSize]})` : size;
  const wide = inLine && Math.max(1, inLine.letters) * (LETTER + gap) + (inLine.spaces ?? 0) * BETWEEN;
  return {
    fontSize: wide === undefined ? wanted : `min(${wanted}, ${(96 / wide).toFixed(2)}cqw)`,
    ...(look ? { letterSpacing: `${gap}em`, wordSpacing: `${gap * 2}em` } : {}),
  };
}

type Letters = Extract<FaceBody, { show: "within" }>["letters"];

/** The letters of each word of a line; the spaces between them are gone. */
function wordsOf(letters: Letters): readonly Letters[] {
  const words: Letters[] = [[]];
  for (const letter of letters) {
    const [first = "", ...next] = letter.text.split(/\s+/);
    if (first !== "") words.at(-1)?.push({ ...letter, text: first });
    for (const text of next) words.push(text === "" ? [] : [{ ...letter, text }]);
  }
  return words.filter((word) => word.length > 0);
}

/** A word of which one spelling is asked, or a word or a line with a mark under each of its sounds, as far apart as they stand. */
export function WordWithin({ face, room }: { face: Extract<FaceBody, { show: "within" }>; room: Room }) {
  // A word stands whole in its line.
  const words = wordsOf(face.letters);
  // As large when its sounds are together as it can be when they are apart: it slides, and does not grow.
  const spaces = face.apart === undefined ? 0 : face.letters.length - 1;
  const all = { letters: face.text.length, spaces };
  return (
    <p
      data-testid="card"
      className={`font-child select-none text-center text-ink ${words.length > 1 ? "flex flex-wrap justify-center gap-x-[0.4em]" : ""}`}
      style={
        words.length > 1 ? lettersOf(face.look, lineSize[room]) : lettersOf(face.look, wordSize(face.text, room), all)
      }
    >
      <span className="sr-only">{face.text}</span>
      {words.map((letters, word) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the words of a line never change places
        <span key={word} className="bracketed" aria-hidden>
          {letters.map(({ text, as }, at) => (
            <span
              // biome-ignore lint/suspicious/noArrayIndexKey: the letters of a word never change places
              key={at}
              className={`${looks[as]} motion-safe:transition-[margin]`}
              style={face.apart && at > 0 ? { marginLeft: `${face.apart * BETWEEN}em` } : undefined}
            >
              {text}
            </span>
          ))}
        </span>
      ))}
    </p>
  );
}
