import type { FaceBody } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { heardIn, kindsOfPart, type PartKind, readOf } from "#core/plans";
import type { ReadingMark } from "#core/reading";
import { plural } from "#core/saying";
import { keepKeys } from "#web/device/keys.tsx";
import { Button } from "#web/parts/button.tsx";
import { ChildFace } from "#web/parts/child-face.tsx";
import { Choice } from "#web/parts/field.tsx";
import { TextTurn } from "./text-turn.tsx";
import { isUnseen, type Support, supportSays, supports } from "./turn-face.ts";
import type { Desk } from "./use-desk.ts";
import type { Teaching, TextMarks } from "./use-teach.ts";

interface NowWanted {
  readonly desk: Desk;
  readonly teaching: Teaching;
  readonly nameOf: (id: string) => string;
  /** The text of the shelf that is read. */
  readonly text: TextMarks["text"] | undefined;
  /** Says something with the device's own voice; missing where that is off. */
  readonly onSay: ((text: string) => void) | undefined;
  /** A text is to be read that is not on the shelf. */
  readonly isTextGone: boolean;
}

/** What is asked now, as large as the children see it, and what goes on from there. */
export function Now({ desk, teaching, nameOf, text, onSay, isTextGone }: NowWanted) {
  const { state, parts, act } = teaching;
  const { part, turn, runs } = desk;
  const ofTurn = `${state.part} ${state.turn}`;
  const read = teaching.readings[ofTurn];
  const childId = turn?.childId ?? null;
  const onMarks =
    text && childId !== null && runs
      ? (marks: readonly ReadingMark[]) =>
          teaching.setReading(ofTurn, { childId, text: { id: text.id, title: text.title, body: text.body }, marks })
      : undefined;
  return (
    <section
      aria-label="Now"
      className="flex min-h-[15rem] flex-col rounded-lg border border-line bg-sheet p-4 sm:min-h-[19rem] lg:min-h-[31rem]"
    >
      {part && (
        <>
          <div className="flex items-baseline justify-between gap-3">
            <h2>{kindsOfPart[part.kind].title}</h2>
            <span className="text-sm text-soft">
              {state.begun && state.turns.length > 0
                ? `${Math.min(state.turn + 1, state.turns.length)} of ${state.turns.length}`
                : `${part.minutes} min`}
            </span>
          </div>
          <p className="text-soft">{part.how}</p>
        </>
      )}
      <div className="flex flex-1 flex-col items-center justify-center gap-2 py-3">
        {!state.begun ? (
          <Waits
            says={state.here.length === 0 ? "No one is here yet. Tick who came." : "Tick who is here, then begin."}
            does="Begin"
            onDo={() => act({ do: "begin" })}
          />
        ) : state.since === null ? (
          <Waits says="Paused. Everything so far is kept." does="Go on" onDo={desk.pause} />
        ) : turn === undefined ? (
          <Waits
            says={state.turns.length === 0 ? "Nothing is planned for this part." : "This part is done."}
            {...(state.part === parts.length - 1
              ? { does: "End the session", onDo: () => act({ do: "end" }) }
              : {
                  does: kindsOfPart[parts[state.part + 1]?.kind ?? "teach"].title,
                  onDo: () => desk.toPart(state.part + 1),
                })}
          />
        ) : text && part?.kind === "text" ? (
          <TextTurn key={ofTurn} title={text.title} body={text.body} marks={read?.marks ?? []} onMarks={onMarks} />
        ) : (
          <>
            {(desk.face.show === "nothing" || desk.isLaid !== null || part?.kind === "hear") && (
              <p className="text-center font-child text-4xl" data-testid="say">
                {heardOf(turn.item)}
              </p>
            )}
            {isTextGone && (
              <p role="status" className="max-w-prose text-center text-soft">
                No text of this name is on the shelf. Read it from paper if you have it, or go on; the rest of the
                session stands.
              </p>
            )}
            <ChildFace face={isTextGone ? nothing : desk.face} room="desk" onDeed={desk.onDeed} />
          </>
        )}
      </div>
      {runs && turn && (
        <Controls {...{ desk, nameOf, onSay }} isFirst={state.turn === 0} isEmpty={state.here.length === 0} />
      )}
    </section>
  );
}

const nothing: FaceBody = { show: "nothing" };

function Waits({ says, does, onDo }: { says: string; does: string; onDo: () => void }) {
  return (
    <>
      <p>{says}</p>
      <Button shape="main" className="min-h-12" onClick={onDo}>
        {does}
      </Button>
    </>
  );
}

/** What is said of an item: not where its sound is. */
const heardOf = (item: string) => item.replace(/\s*\([^)]*\)$/, "");

/** What stands behind a line that children read: an answer, the word of a picture. */
function lineAside(kind: PartKind, item: string): string {
  const read = readOf(kind, item);
  return kindsOfPart[kind].items === "lines" && kind !== "sort" && read !== item
    ? item.slice(read.length).trim()
    : "";
}

/** What a child should tap; null where that is not known. */
function rightTap(kind: PartKind, item: string): string | null {
  if (kind === "hear") return heardIn(item);
  if (kind === "yesNo") return /\(\s*(yes|no)\b/i.exec(item)?.[1]?.toLowerCase() ?? null;
  return kindsOfPart[kind].items === "spellings" ? showGrapheme(splitGpc(item).grapheme) : null;
}

function Controls({
  desk,
  nameOf,
  onSay,
  isFirst,
  isEmpty,
}: Pick<NowWanted, "desk" | "nameOf" | "onSay"> & { isFirst: boolean; isEmpty: boolean }) {
  const { part, turn, face, units, support, canShow, shown } = desk;
  if (!part || !turn) return null;
  // What only the adult sees: an answer, the picture that is meant.
  const aside = part.kind === "hear" ? (heardIn(turn.item) ?? "") : lineAside(part.kind, turn.item);
  const words = part.kind === "sentence" ? turn.item.split(/\s+/).filter(Boolean).length : 0;
  const right = rightTap(part.kind, turn.item);
  const tappedSays = right === null ? null : right === desk.tapped;
  const seen = face.show !== "nothing" && face.show !== "board" && units !== undefined;
  return (
    <>
      <p className="mb-2 text-center text-soft">
        {turn.childId ? nameOf(turn.childId) : "Everyone"}
        {canShow && !shown && `: say it; it is not shown${words > 0 ? ` · ${plural(words, "word")} to count` : ""}`}
        {aside && ` · ${aside}`}
        {desk.isLaid && (desk.isLookedAt ? " · all lies right" : " · all lies right; press Check to show it")}
        {desk.tapped && ` · tapped “${desk.tapped}”${tappedSays === null ? "" : tappedSays ? ", right" : ", not so"}`}
      </p>
      <div className="flex min-h-11 flex-wrap items-center justify-center gap-1.5">
        <Button className="min-h-11" onMouseDown={keepKeys} disabled={isFirst} onClick={desk.back}>
          Back
        </Button>
        {turn.childId === null && !isEmpty && (
          <Button shape="main" className="min-h-11" onMouseDown={keepKeys} onClick={desk.everyone}>
            Everyone else got it
          </Button>
        )}
        <Button className="min-h-11" onMouseDown={keepKeys} onClick={desk.next}>
          Next
        </Button>
        {onSay && isUnseen(part.kind) && (
          <Button className="min-h-11" onMouseDown={keepKeys} onClick={() => onSay(heardOf(turn.item))}>
            Say it
          </Button>
        )}
        {canShow && (
          <Button className="min-h-11" onMouseDown={keepKeys} aria-pressed={shown} onClick={desk.show}>
            {shown ? "Hide it" : "Show it"}
          </Button>
        )}
        {desk.isLaid !== null && (
          <Button className="min-h-11" onMouseDown={keepKeys} aria-pressed={desk.isLookedAt} onClick={desk.look}>
            Check
          </Button>
        )}
        {desk.spot && (
          <Button className="min-h-11" onMouseDown={keepKeys} onClick={desk.spot}>
            {desk.isHidden ? "Hide it again" : "Hide and spot"}
          </Button>
        )}
        {desk.isHidden && (
          <Button className="min-h-11" onMouseDown={keepKeys} onClick={desk.unhide}>
            Show it alone
          </Button>
        )}
        {desk.more && (
          <Button className="min-h-11" onMouseDown={keepKeys} onClick={desk.more}>
            One more like this
          </Button>
        )}
        {desk.easier && (
          <Button className="min-h-11" onMouseDown={keepKeys} onClick={desk.easier}>
            Easier
          </Button>
        )}
      </div>
      {/* Its place is kept, so that nothing moves under a finger. */}
      <div className="mt-2 flex min-h-11 flex-wrap items-center justify-center gap-3">
        {seen && (
          <div className="w-40">
            <Choice
              bare
              label="How the word stands"
              value={support}
              onChange={(event) => desk.setSupport(event.target.value as Support)}
            >
              {supports
                .filter((one) => one !== "apart" || !desk.isLine)
                .map((one) => (
                  <option key={one} value={one}>
                    {supportSays[one]}
                  </option>
                ))}
            </Choice>
          </div>
        )}
        {seen && support === "byUnit" && (
          <Button
            className="min-h-11"
            onMouseDown={keepKeys}
            disabled={desk.sounds >= units.length}
            onClick={desk.nextSound}
          >
            Next sound
          </Button>
        )}
        {seen && support === "apart" && (
          <label className="flex min-h-11 items-center gap-2 text-sm">
            slide together
            <input
              type="range"
              min={0}
              max={100}
              value={100 - Math.round(desk.apart * 100)}
              onChange={(event) => desk.setApart(1 - Number(event.target.value) / 100)}
              // The arrows lead to the next again; to whoever came by keys they belong to the slider.
              onPointerUp={(event) => event.currentTarget.blur()}
              className="h-6 w-48 accent-leaf"
            />
          </label>
        )}
      </div>
    </>
  );
}
