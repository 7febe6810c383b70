import { useMemo, useState } from "react";
import type { FaceBody, FaceDeed } from "#contract";
import {
  type Board,
  hasMarks,
  isLaidRight,
  isTogether,
  kindsOfPart,
  type Laid,
  laidOn,
  moreWords,
  offerIn,
  oneMore,
  type SessionPart,
  spotAmong,
  type TeachMark,
  type TeachOutcome,
  type Turn,
  targetsOf,
  wordOn,
} from "#core/plans";
import type { Lexicon, Unit } from "#core/words";
import { useKeys } from "#web/device/keys.tsx";
import { askedBy } from "#web/parts/asked-by.ts";
import { lettersFor } from "#web/parts/letters-for.ts";
import { boardOfTurn, faceOfBoard, faceOfTurn, isUnseen, lineWords, type Support, supports } from "./turn-face.ts";
import type { TaughtSession, Teaching } from "./use-teach.ts";

/** What stands on the adult's side now, and what can be done there. */
export interface Desk {
  /** The part that runs, and what it asks; missing before the beginning, in a part without items, and when it is done. */
  readonly part: SessionPart | undefined;
  readonly turn: Turn | undefined;
  /** True while it is neither paused nor ended. */
  readonly runs: boolean;
  readonly face: FaceBody;
  /** The word that is asked, in its units. */
  readonly units: readonly Unit[] | undefined;
  /** It is a line of words, which has no sounds to slide together. */
  readonly isLine: boolean;
  /** Marks on what is asked now. */
  readonly marks: readonly TeachMark[];
  readonly support: Support;
  readonly setSupport: (support: Support) => void;
  /** Sounds that stand apart: how far, 0 to 1; sounds that are shown, of a word that comes sound by sound. */
  readonly apart: number;
  readonly setApart: (apart: number) => void;
  readonly sounds: number;
  readonly nextSound: () => void;
  /** What is heard or written can be shown, and is. */
  readonly canShow: boolean;
  readonly shown: boolean;
  readonly show: () => void;
  /** Tiles lie right so far as everything that belongs is laid; null where none are laid. Looked at, children see which lie right. */
  readonly isLaid: boolean | null;
  readonly isLookedAt: boolean;
  readonly look: () => void;
  /** The spelling can hide among old ones; undefined where none is asked. Each time they lie otherwise. */
  readonly spot: (() => void) | undefined;
  readonly isHidden: boolean;
  readonly unhide: () => void;
  /** What a child tapped last of this turn. */
  readonly tapped: string | null;
  /** A child did something on its screen. */
  readonly onDeed: (deed: FaceDeed) => void;
  readonly mark: (childId: string, outcome: TeachOutcome) => void;
  /** Everyone who is here and has no mark got it; then comes the next. */
  readonly everyone: () => void;
  readonly next: () => void;
  readonly back: () => void;
  readonly pause: () => void;
  readonly toPart: (part: number) => void;
  /** One more word like this, or an easier one; undefined where there is none. */
  readonly more: (() => void) | undefined;
  readonly easier: (() => void) | undefined;
  readonly offer: "smaller" | "harder" | null;
  readonly answer: (taken: boolean) => void;
}

/** A choice that holds for one turn or one part, and is forgotten with it. */
function useFor<T>(of: string, usual: T): [T, (value: T) => void] {
  const [chosen, setChosen] = useState<{ readonly of: string; readonly value: T }>();
  return [chosen?.of === of ? chosen.value : usual, (value) => setChosen({ of, value })];
}

/** The desk of a session that is taught, with its keys. */
export function useDesk(wanted: {
  readonly session: TaughtSession;
  readonly lexicon: Lexicon;
  readonly teaching: Teaching;
  readonly onSeen: () => void;
  /** The text of the shelf that this part reads, as large as it stands. */
  readonly passage: { readonly text: string; readonly size: number; readonly spacing: number } | undefined;
}): Desk {
  const { session, lexicon, teaching, onSeen, passage } = wanted;
  const { state, parts, act, undo, seed } = teaching;
  const part = parts[state.part];
  const turn = state.turns[state.turn];
  const runs = state.begun && !state.ended && state.since !== null;
  const ofPart = String(state.part);
  const ofTurn = `${state.part} ${state.turn}`;
  const [support, setSupport] = useFor<Support>(
    ofPart,
    part?.kind === "blend" ? "apart" : part && hasMarks(part) ? "marks" : "plain",
  );
  const [apart, setApart] = useFor(ofTurn, 1);
  const [sounds, setSounds] = useFor(ofTurn, 1);
  const [shown, setShown] = useFor(ofTurn, false);
  const [laidHere, setLaid] = useFor<Laid | undefined>(ofTurn, undefined);
  const [isLookedAt, setLookedAt] = useFor(ofTurn, false);
  const [hidden, setHidden] = useFor(ofTurn, 0);
  const [tapped, setTapped] = useFor<string | null>(ofTurn, null);
  const unitsOf = (item: string | undefined) =>
    part && item !== undefined && kindsOfPart[part.kind].items === "words" ? lexicon.find(item)[0]?.units : undefined;
  const line = useMemo(
    () =>
      turn && (part?.kind === "sentence" || part?.kind === "readSentence")
        ? lineWords(turn.item, (word) => lexicon.find(word)[0]?.units)
        : undefined,
    [turn, part?.kind, lexicon],
  );
  const units = line ? line.flatMap((one) => one.units ?? []) : unitsOf(turn?.item);
  const isUnseenNow = part !== undefined && isUnseen(part.kind);
  const canShow = isUnseenNow && part.kind !== "hear";
  const known = useMemo(
    () => [...new Set([...session.known, ...targetsOf(session.plan)])],
    [session.known, session.plan],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: a board stays as it was dealt while its turn is asked
  const board: Board | undefined = useMemo(
    () =>
      runs
        ? boardOfTurn({ part, turns: state.turns, turn: state.turn, unitsOf, known, seed: seed + state.turn })
        : undefined,
    [runs, ofTurn, turn?.item, part?.kind, known, seed],
  );
  const laid = board && laidOn(board, laidHere);
  const isCard = part !== undefined && kindsOfPart[part.kind].items === "spellings" && turn !== undefined;
  const spots = isCard && hidden > 0 ? spotAmong(turn.item, known, seed + state.turn * 100 + hidden) : undefined;
  // Told from the turn before it: another may have the same word.
  const boardItem = `${ofTurn} ${turn?.item ?? ""}`.slice(0, 200);
  const plain: FaceBody =
    board && laid && !shown
      ? faceOfBoard(board, { item: boardItem, laid, isLookedAt })
      : runs
        ? faceOfTurn({
            ...{
              kind: part?.kind ?? "teach",
              item: turn?.item,
              units,
              before: unitsOf(state.turns[state.turn - 1]?.item),
            },
            ...{ support, sounds, apart, open: shown, spots, passage, line },
          })
        : { show: "nothing" };
  const face = lettersFor(
    plain,
    session.members.find(({ id }) => id === turn?.childId),
  );
  const onDeed = (deed: FaceDeed) => {
    if ("laid" in deed) {
      if (deed.item === boardItem && board) setLaid(laidOn(board, deed.laid));
    } else if (deed.item !== askedBy(face)) return;
    else if ("apart" in deed) setApart(deed.apart);
    else setTapped(deed.choice);
  };
  // What was built in place of a word is what was written.
  const built = board?.look === "boxes" && laid && !laid.every((at) => at === null) ? wordOn(board, laid) : "";
  const words = useMemo(
    () => moreWords({ lexicon, known: new Set(session.known), targets: targetsOf(session.plan) }),
    [lexicon, session],
  );
  const used = useMemo(
    () => new Set([...parts.flatMap(({ items }) => items), ...state.turns.map(({ item }) => item)]),
    [parts, state.turns],
  );
  const marks = state.marks.filter((one) => one.part === state.part && one.turn === state.turn);
  // Whoever is the only one here answers alone, whatever the part is.
  const together = part !== undefined && isTogether(part) && state.asked.length > 1;
  // What is written stood before no one's eyes.
  const helped = !isUnseenNow && units !== undefined && support !== "plain";
  const made = (childId: string, outcome: TeachOutcome) =>
    ({
      ...({ do: "mark", childId, outcome, marks: helped, together } as const),
      said: outcome === "notYet" && part?.kind === "build" && built !== turn?.item && built !== "" ? built : null,
    }) as const;

  const mark = (childId: string, outcome: TeachOutcome) => {
    if (!runs || !turn) return;
    // A turn of one child ends with its mark; of all of them when the adult goes on.
    if (turn.childId === childId) act(made(childId, outcome), { do: "next" });
    else act(made(childId, outcome));
  };
  const everyone = () => {
    if (!runs || !turn) return;
    const left = state.asked.filter((id) => !marks.some((one) => one.childId === id));
    act(...left.map((id) => made(id, "got")), { do: "next" });
  };
  const word = (step: "same" | "easier" | "harder") =>
    runs && part && turn ? oneMore(words, { kind: part.kind, like: turn.item, used, step }) : null;
  const [like, easy] = [word("same"), word("easier")];
  const take = (item: string, easier: boolean) => act({ do: "more", item, easier }, { do: "next" });
  const offer = runs ? offerIn(state, parts) : null;
  const answer = (taken: boolean) => {
    if (!offer) return;
    const item = taken ? word(offer === "smaller" ? "easier" : "harder") : null;
    if (taken && offer === "smaller") setSupport("marks");
    const more = item ? ([{ do: "more", item, easier: offer === "smaller" }, { do: "next" }] as const) : [];
    act({ do: "offer", offer, taken }, ...more);
  };
  const next = () => {
    if (runs) act({ do: "next" });
  };
  const back = () => {
    if (runs) act({ do: "back" });
  };
  const pause = () => {
    if (state.begun && !state.ended) act({ do: state.since === null ? "go" : "pause" });
  };
  const toPart = (at: number) => {
    if (runs && parts[at]) act({ do: "part", part: at });
  };
  const show = () => {
    if (canShow) setShown(!shown);
  };
  const look = () => {
    if (board) setLookedAt(!isLookedAt);
  };
  const spot = isCard && runs ? () => [setHidden(hidden + 1), setTapped(null)] : undefined;
  const nextSound = () => setSounds(Math.min(units?.length ?? 1, sounds + 1));
  const markTurn = (outcome: TeachOutcome) => () => {
    if (turn?.childId) mark(turn.childId, outcome);
    else if (outcome === "got") everyone();
  };
  useKeys([
    { key: "1", does: "Got it; everyone, where all answer", run: markTurn("got") },
    { key: "2", does: "With help", run: markTurn("help") },
    { key: "3", does: "Not yet", run: markTurn("notYet") },
    { key: "ArrowRight", does: "The next", run: next },
    { key: "ArrowLeft", does: "The one before", run: back },
    { key: "ArrowDown", does: "The next part", run: () => toPart(state.part + 1) },
    { key: "ArrowUp", does: "The part before", run: () => toPart(state.part - 1) },
    { key: "u", does: "Undo", run: () => undo?.() },
    { key: "p", does: "Pause, go on", run: pause },
    {
      key: "b",
      does: "How the word stands: no marks, marks, sound by sound, apart",
      run: () => units && setSupport(supports[(supports.indexOf(support) + 1) % supports.length] ?? "plain"),
    },
    {
      key: "x",
      does: "The next sound; sounds together or apart",
      run: () => (support === "apart" ? setApart(apart > 0 ? 0 : 1) : nextSound()),
    },
    { key: "s", does: "Show what is written", run: show },
    { key: "c", does: "Look at what was laid", run: look },
    { key: "h", does: "Hide it among old ones, and again", run: () => spot?.() },
    { key: "m", does: "One more like this", run: () => like && take(like, false) },
    { key: "e", does: "An easier one", run: () => easy && take(easy, true) },
    { key: "v", does: "What the children see", run: onSeen },
  ]);
  return {
    ...{
      part,
      turn,
      runs,
      face,
      units,
      isLine: line !== undefined,
      marks,
      support,
      setSupport,
      apart,
      setApart,
      sounds,
      nextSound,
    },
    ...{ isLaid: board && laid ? isLaidRight(board, laid) : null, isLookedAt, look, tapped, onDeed },
    ...{ spot: spot && (() => void spot()), isHidden: hidden > 0, unhide: () => setHidden(0) },
    ...{ canShow, shown, show, mark, everyone, next, back, pause, toPart, offer, answer },
    more: like ? () => take(like, false) : undefined,
    easier: easy ? () => take(easy, true) : undefined,
  };
}
