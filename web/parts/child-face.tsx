import { lazy, Suspense } from "react";
import type { FaceBody, FaceDeed } from "#contract";
import { askedBy } from "./asked-by.ts";
import { Sliding } from "./sliding.tsx";
import { lettersOf, type Room, WordWithin, wordSize } from "./word-within.tsx";

const BoardFace = lazy(() => import("./board-face.tsx").then((module) => ({ default: module.BoardFace })));

/** Letters of a passage on the adult's side, in pixels: beside it other things have their place. */
const MOST_ON_DESK = 48;

const letters: Record<Room, string> = { window: "min(56vh, 34vw)", desk: "min(30vh, 26vw)" };

interface ChildFaceWanted {
  readonly face: FaceBody;
  readonly room: Room;
  readonly onDeed?: ((deed: FaceDeed) => void) | undefined;
}

/**
 * What the child sees: one thing on an empty page, huge, in Andika. Choices can be tapped, tiles laid, sounds slid together. It is
 * as wide as its place, and a word never wider.
 */
export function ChildFace(wanted: ChildFaceWanted) {
  return wanted.face.show === "nothing" ? null : (
    <div className="@container flex max-h-full w-full min-w-0 flex-col items-center">
      <Shown {...wanted} />
    </div>
  );
}

function Shown({ face, room, onDeed }: ChildFaceWanted) {
  if (face.show === "nothing") return null;
  if (face.show === "text")
    return (
      <p
        data-testid="card"
        className="font-child select-none whitespace-nowrap text-center leading-[1.15] text-ink"
        style={lettersOf(
          face.look,
          face.size === "letters" ? `max(200px, ${letters[room]})` : wordSize(face.text, room),
          { letters: face.text.length },
        )}
      >
        {face.text}
      </p>
    );
  if (face.show === "within")
    return face.apart !== undefined && room === "window" && onDeed ? (
      <Sliding {...{ face, onDeed }} />
    ) : (
      <WordWithin {...{ face, room }} />
    );
  if (face.show === "board")
    return (
      <Suspense fallback={null}>
        <BoardFace face={face} room={room} onLaid={(laid) => onDeed?.({ item: face.item, laid: [...laid] })} />
      </Suspense>
    );
  if (face.show === "passage")
    return (
      <div
        className="font-child flex min-h-0 w-full max-w-[62ch] flex-col gap-6 overflow-y-auto"
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
  gapped,
  room,
  onDeed,
}: {
  item: string;
  choices: readonly string[];
  look?: "places" | undefined;
  gapped?: readonly [string, string] | undefined;
  room: Room;
  onDeed?: ((deed: FaceDeed) => void) | undefined;
}) {
  const columns = choices.length <= 4 ? 2 : 3;
  const grid = (
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
  if (gapped === undefined) return grid;
  const [before, after] = gapped;
  return (
    <div className="flex w-full flex-col items-center gap-[4vh]">
      <p
        data-testid="gapped"
        className={`font-child flex select-none items-end whitespace-pre leading-none text-ink ${room === "window" ? "text-[min(18vh,12vw)]" : "text-[min(11vh,10vw)]"}`}
      >
        {before}
        <span
          role="img"
          aria-label="a gap"
          className="mx-[0.06em] mb-[0.02em] inline-block h-[1em] w-[0.9em] border-ink border-b-[0.08em]"
        />
        {after}
      </p>
      {grid}
    </div>
  );
}
