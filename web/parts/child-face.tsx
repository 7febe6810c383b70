import type { FaceBody } from "#contract";

/** How much of the window the child's face may take: all of it, or the upper part of the desk. */
type Room = "window" | "desk";

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

/** What the child sees: one thing on an empty page, huge, in Andika. Choices can be tapped. */
export function ChildFace({
  face,
  room,
  onTap,
}: {
  face: FaceBody;
  room: Room;
  onTap?: ((choice: string) => void) | undefined;
}) {
  if (face.show === "nothing") return null;
  if (face.show === "text")
    return (
      <p
        data-testid="card"
        className="font-child select-none whitespace-nowrap text-center leading-[1.15] text-ink"
        style={{ fontSize: face.size === "letters" ? `max(200px, ${letters[room]})` : wordSize(face.text, room) }}
      >
        {face.text}
      </p>
    );
  if (face.show === "within")
    return (
      <p
        data-testid="card"
        className="bracketed font-child select-none whitespace-nowrap text-center text-ink"
        style={{ fontSize: wordSize(face.text, room) }}
      >
        <span className="sr-only">{face.text}</span>
        {face.letters.map(({ text, as }, at) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: the letters of a word never change places
            key={at}
            className={`${looks[as]} motion-safe:transition-[margin]`}
            style={face.apart && at > 0 ? { marginLeft: `${face.apart * 0.5}em` } : undefined}
            aria-hidden
          >
            {text}
          </span>
        ))}
      </p>
    );
  if (face.show === "passage")
    return (
      <div
        data-testid="passage"
        className="font-child w-full max-w-[62ch] select-none self-start whitespace-pre-line text-ink"
        style={{ fontSize: face.size, lineHeight: face.spacing }}
      >
        {face.text}
      </div>
    );
  const columns = face.choices.length <= 4 ? 2 : 3;
  return (
    <ul
      data-testid="choices"
      aria-label="Choices"
      className="grid w-full max-w-3xl gap-3"
      style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}
    >
      {face.choices.map((choice) => (
        <li key={choice}>
          <button
            type="button"
            onClick={() => onTap?.(choice)}
            className={`font-child flex w-full select-none items-center justify-center rounded-2xl border-2 border-line bg-sheet leading-none text-ink active:border-ink ${room === "window" ? "h-[26vh] text-[min(14vh,11vw)]" : "h-[12vh] text-[min(8vh,8vw)]"}`}
          >
            {choice}
          </button>
        </li>
      ))}
    </ul>
  );
}
