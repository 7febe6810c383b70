import { useEffect, useMemo, useRef } from "react";
import type { AnswerBody, ChildLetters, SessionView, TextView } from "#contract";
import { answerOf, type SessionPart, type TeachMark, type TeachState, type TeachStep, teachState } from "#core/plans";
import type { ReadingMark } from "#core/reading";
import type { Lexicon } from "#core/words";
import { useBoxDraft } from "#web/device/box-draft.ts";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { outbox } from "#web/device/outbox.ts";
import { newId, newSeed, useMarker } from "#web/device/settings.ts";

/** What a session is taught from, by whoever is signed in or came by a link. */
export interface TaughtSession extends Pick<SessionView, "id" | "groupName" | "heldOn" | "plan" | "known"> {
  readonly members: readonly ({
    readonly id: string;
    readonly name: string;
    readonly absent: boolean;
  } & Partial<ChildLetters>)[];
}

/** What this device keeps of a session that is being taught: the parts as they were when it began, and what was done. */
interface TeachDraft {
  readonly seed: number;
  readonly reportId: string;
  readonly parts: readonly SessionPart[] | null;
  readonly steps: readonly TeachStep[];
  /** Under which another device shows the children's screen. */
  readonly faceCode?: string | null;
  /** Texts that were read, by part and turn. */
  readonly readings?: Readonly<Record<string, TextMarks>>;
}

/** What was marked at the words of a text that a child read. */
export interface TextMarks {
  readonly readingId: string;
  readonly childId: string;
  /** As it was read, whatever becomes of it meanwhile. */
  readonly text: Pick<TextView, "id" | "title" | "body">;
  readonly marks: readonly ReadingMark[];
}

type WithoutStamp<T> = T extends unknown ? Omit<T, "id" | "at"> : never;
type Doing = WithoutStamp<TeachStep>;

/** A session that is being taught on this device. */
export interface Teaching {
  readonly state: TeachState;
  readonly parts: readonly SessionPart[];
  readonly reportId: string;
  /** Chance of this session: the same on every opening. */
  readonly seed: number;
  /** Does these one after the other; the marks among them stand at once and are sent as soon as there is a line. */
  readonly act: (...doing: readonly Doing[]) => void;
  /** Takes back the last thing that was done, a mark with the turn that it ended; undefined where there is nothing. */
  readonly undo: (() => void) | undefined;
  /** Goes on with a session that was ended; undefined where it was not. */
  readonly goOn: (() => void) | undefined;
  /** Under which another device shows the children's screen; null while none does. */
  readonly faceCode: string | null;
  readonly setFaceCode: (code: string | null) => void;
  /** Words that were marked, by part and turn; sent with the report. */
  readonly readings: Readonly<Record<string, TextMarks>>;
  readonly setReading: (turn: string, reading: Omit<TextMarks, "readingId">) => void;
  /** Whether a mark was made on this device. */
  readonly isMine: (id: string) => boolean;
  /** All marks that stand, as answers. */
  readonly answers: () => readonly AnswerBody[];
  readonly forget: () => Promise<void>;
}

const undoable: ReadonlySet<TeachStep["do"]> = new Set(["mark", "next", "back", "part", "more", "here"]);
/** Steps of one press are made so near to each other. */
const ONE_PRESS_MS = 50;

/** Does something once the frame is on the screen that shows what came before it. */
function afterPaint(then: () => void): void {
  if (document.hidden) then();
  else requestAnimationFrame(() => setTimeout(then));
}

/**
 * Undefined until this device was asked what it has kept. What was marked is sent at once; by a link only with the report, since no
 * one is signed in.
 */
export function useTeach(
  session: TaughtSession,
  { lexicon, sendsAtOnce }: { readonly lexicon: Lexicon; readonly sendsAtOnce: boolean },
): Teaching | undefined {
  const [marker] = useMarker();
  const { draft, change, forget } = useBoxDraft<TeachDraft>(`teach/${session.id}`, {
    make: () => ({ seed: newSeed(), reportId: newId(), parts: null, steps: [] }),
    read: (kept) => (kept && typeof kept === "object" && "steps" in kept ? (kept as TeachDraft) : undefined),
  });
  // Two presses in one frame see each other.
  const latest = useRef(draft);
  latest.current = draft;
  const parts = draft?.parts ?? session.plan.parts;
  const wanted = useMemo(
    () => ({
      parts,
      members: session.members.map(({ id, absent }) => ({
        ...{ id, absent },
        cardsOnly: session.plan.cardsOnly?.includes(id) ?? false,
      })),
      seed: draft?.seed ?? 0,
    }),
    [parts, session.members, session.plan.cardsOnly, draft?.seed],
  );
  const steps = draft?.steps;
  const state = useMemo(() => (steps ? teachState(wanted, steps) : undefined), [wanted, steps]);
  const answer = (mark: TeachMark): AnswerBody | null =>
    answerOf(mark, {
      ...{ kind: parts[mark.part]?.kind ?? "teach", lexicon, sessionId: session.id },
      ...{ day: todayHere(), markedBy: marker.trim() || "Teacher" },
    }) as AnswerBody | null;

  const takenBack = (childId: string, id: string): AnswerBody => ({
    ...{ id: newId(), childId, markedAt: stampNow(), day: todayHere() },
    ...{ markedBy: marker.trim() || "Teacher", outcome: "void", voids: id },
  });

  const mend = useRef<() => void>(() => {});
  mend.current = () => {
    if (!state || !draft?.parts || !sendsAtOnce) return;
    const kept = new Set(draft.steps.map(({ id }) => id));
    void outbox.logOf(session.id).then((found) => {
      // What is pressed meanwhile goes its own way.
      const log = found.filter((one) => kept.has(one.outcome === "void" ? one.voids : one.id));
      const voided = new Set(log.flatMap((one) => (one.outcome === "void" ? one.voids : [])));
      const sent = new Map(log.flatMap((one) => (one.outcome === "void" ? [] : [[one.id, one.childId] as const])));
      const stands = new Set(state.marks.map(({ id }) => id));
      for (const mark of state.marks) {
        const made = sent.has(mark.id) ? null : answer(mark);
        if (made) outbox.add(made, session.id);
      }
      for (const [id, childId] of sent)
        if (!stands.has(id) && !voided.has(id)) outbox.add(takenBack(childId, id), session.id);
    });
  };
  const isOpen = draft !== undefined;
  // A page that was closed in the middle of a mark: its step is kept, and what follows from it is sent now.
  useEffect(() => {
    if (isOpen) mend.current();
  }, [isOpen]);

  if (!draft || !state) return undefined;

  /** What came of these steps goes into the log of answers: new marks, and what is no mark any more. */
  const put = (added: readonly TeachStep[]) => {
    const before = latest.current ?? draft;
    const next = { ...before, parts: before.parts ?? session.plan.parts, steps: [...before.steps, ...added] };
    const was = teachState(wanted, before.steps).marks;
    const is = teachState(wanted, next.steps).marks;
    latest.current = next;
    change(next);
    const gone = was.filter(({ id }) => !is.some((one) => one.id === id));
    const fresh = is.filter(({ id }) => !was.some((one) => one.id === id));
    const back = gone.flatMap((mark) => (answer(mark) ? takenBack(mark.childId, mark.id) : []));
    const made = [...back, ...fresh.flatMap((mark) => answer(mark) ?? [])];
    // The mark is seen first. What is cut off before it is sent is found again by the steps.
    if (made.length > 0 && sendsAtOnce)
      afterPaint(() => {
        for (const one of made) outbox.add(one, session.id);
      });
  };

  const act = (...doing: readonly Doing[]) => {
    const now = teachState(wanted, (latest.current ?? draft).steps);
    const stamp = () => ({ id: newId(), at: Date.parse(stampNow()) });
    put(
      doing.flatMap((one): TeachStep[] => {
        const step = { ...one, ...stamp() } as TeachStep;
        if (step.do !== "mark") return [step];
        // A mark that another takes the place of is taken back first, so that the log of answers says so.
        const old = now.marks.find(
          (mark) => mark.part === now.part && mark.turn === now.turn && mark.childId === step.childId,
        );
        return old ? [{ do: "undo", of: old.id, ...stamp() }, step] : [step];
      }),
    );
  };

  const undone = new Set(draft.steps.flatMap((step) => (step.do === "undo" ? [step.of] : [])));
  const open = draft.steps.filter((step) => undoable.has(step.do) && !undone.has(step.id));
  const last = open.at(-1);
  const press = last ? open.filter(({ at }) => last.at - at <= ONE_PRESS_MS) : [];
  const undo = () => put(press.map(({ id }) => ({ do: "undo", of: id, id: newId(), at: Date.parse(stampNow()) })));
  const end = draft.steps.findLast((step) => step.do === "end" && !undone.has(step.id));
  const goOn = end && (() => put([{ do: "undo", of: end.id, id: newId(), at: Date.parse(stampNow()) }]));
  const setFaceCode = (faceCode: string | null) => {
    const next = { ...(latest.current ?? draft), faceCode };
    latest.current = next;
    change(next);
  };
  const setReading = (turn: string, reading: Omit<TextMarks, "readingId">) => {
    const before = latest.current ?? draft;
    const readingId = before.readings?.[turn]?.readingId ?? newId();
    const next = { ...before, readings: { ...before.readings, [turn]: { readingId, ...reading } } };
    latest.current = next;
    change(next);
  };
  return {
    ...{ readings: draft.readings ?? {}, setReading },
    isMine: (id) => (latest.current ?? draft).steps.some((step) => step.id === id),
    ...{ answers: () => state.marks.flatMap((one) => answer(one) ?? []) },
    ...{ state, parts, seed: draft.seed, reportId: draft.reportId, faceCode: draft.faceCode ?? null },
    ...{ act, undo: press.length > 0 ? undo : undefined, goOn, setFaceCode, forget },
  };
}
