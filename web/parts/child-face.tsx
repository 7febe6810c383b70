import { type CSSProperties, lazy, Suspense } from "react";
import type { ChildLetters, FaceBody, FaceDeed } from "#contract";

import { askedBy } from "./asked-by.ts";

const BoardFace = lazy(() => import("./board-face.tsx").then((module) => ({ default: module.BoardFace })));

/** How much of the window the child's face may take: all of it, or the upper part of the desk. */
type Room = "window" | "desk";

const lineSize: Record<Room, string> = { window: "min(84px, 9vw)", desk: "min(44px, 7vw)" };

/** Letters of a passage on the adult's side, in pixels: beside it other things have their place. */
const MOST_ON_DESK = 48;

const letters: Record<Room, string> = { window: "min(56vh, 34vw)", desk: "min(30vh, 26vw)" };

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
function wordSize(text: string, room: Room): string {
  const width = room === "window" ? 150 : 110;
  return `clamp(64px, ${Math.round(width / Math.max(5, text.length))}vw, ${room === "window" ? "40vh" : "22vh"})`;
}

const scales = { usual: 1, larger: 1.25, largest: 1.5 } as const;
const gaps = { usual: 0, wider: 0.06, widest: 0.14 } as const;

/** Letters as they stand for a child: larger, as far as a word of so many letters has room, and further apart. */
function lettersOf(look: ChildLetters | undefined, size: string, length?: number): CSSProperties {
  if (!look) return { fontSize: size };
  const gap = gaps[look.letterSpacing];
  const larger = `calc(${size} * ${scales[look.letterSize]})`;
  // A letter is about 0.55 em wide.
  const room = length === undefined ? undefined : Math.floor(94 / Math.max(1, length) / (0.55 + gap));
  return {
    fontSize: room === undefined ? larger : `min(${larger}, ${room}vw)`,
    letterSpacing: `${gap}em`,
    wordSpacing: `${gap * 2}em`,
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

/** What the child sees: one thing on an empty page, huge, in Andika. Choices can be tapped, tiles laid. */
export function ChildFace({
  face,
  room,
  onDeed,
}: {
  face: FaceBody;
  room: Room;
  onDeed?: ((deed: FaceDeed) => void) | undefined;
}) {
  if (face.show === "nothing") return null;
  if (face.show === "text")
    return (
      <p
        data-testid="card"
        className="font-child select-none whitespace-nowrap text-center leading-[1.15] text-ink"
        style={lettersOf(
          face.look,
          face.size === "letters" ? `max(200px, ${letters[room]})` : wordSize(face.text, room),
          face.text.length,
        )}
      >
        {face.text}
      </p>
    );
  if (face.show === "within") {
    // A word stands whole in its line.
    const words = wordsOf(face.letters);
    return (
      <p
        data-testid="card"
        className={`font-child select-none text-center text-ink ${words.length > 1 ? "flex flex-wrap justify-center gap-x-[0.4em]" : ""}`}
        style={
          words.length > 1
            ? lettersOf(face.look, lineSize[room])
            : lettersOf(face.look, wordSize(face.text, room), face.text.length)
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
                style={face.apart && at > 0 ? { marginLeft: `${face.apart * 0.5}em` } : undefined}
              >
                {text}
              </span>
            ))}
          </span>
        ))}
      </p>
    );
  }
  if (face.show === "board")
    return (
      <Suspense fallback={null}>
        <BoardFace face={face} room={room} onLaid={(laid) => onDeed?.({ item: face.item, laid: [...laid] })} />
      </Suspense>
    );
  if (face.show === "passage")
    return (
      <div
        className="font-child flex max-h-full w-full max-w-[62ch] flex-col gap-6 self-start overflow-y-auto"
        style={lettersOf(face.look, `${room === "desk" ? Math.min(face.size, MOST_ON_DESK) : face.size}px`)}
      >
        <div
          data-testid="passage"
          className="w-full select-none whitespace-pre-line text-ink"
          style={{ lineHeight: face.spacing }}
        >
          {face.text}
        </div>
        {face.answers && <Choices item={askedBy(face) ?? ""} choices={face.answers} {...{ room, onDeed }} />}
      </div>
    );
  return <Choices {...{ ...face, room, onDeed }} />;
}

/** Three boxes, of which one is meant: where in a word a sound is. */
function Place({ choice }: { choice: string }) {
  const at = ["at the start", "in the middle", "at the end"].indexOf(choice);
  return (
    <span className="flex gap-[0.15em]">
      {[0, 1, 2].map((box) => (
        <span
          key={box}
          className={`size-[0.7em] rounded-[0.12em] border-[0.06em] border-ink ${box === at ? "bg-ink" : ""} ${at < 0 ? "border-dashed opacity-60" : ""}`}
        />
      ))}
    </span>
  );
}

function Choices({
  item,
  choices,
  look,
  room,
  onDeed,
}: {
  item: string;
  choices: readonly string[];
  look?: "places" | undefined;
  room: Room;
  onDeed?: ((deed: FaceDeed) => void) | undefined;
}) {
  const columns = choices.length <= 4 ? 2 : 3;
  return (
    <ul
      data-testid="choices"
      aria-label="Choices"
      className="grid w-full max-w-3xl gap-3"
      style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}
    >
      {choices.map((choice) => (
        <li key={choice}>
          <button
            type="button"
            aria-label={choice}
            onClick={() => onDeed?.({ item, choice })}
            className={`font-child flex w-full select-none items-center justify-center rounded-2xl border-2 border-line bg-sheet leading-none text-ink active:border-ink ${room === "window" ? "h-[26vh] text-[min(14vh,11vw)]" : "h-[12vh] text-[min(8vh,8vw)]"}`}
          >
            {look === "places" ? <Place choice={choice} /> : choice}
          </button>
        </li>
      ))}
    </ul>
  );
}
