import { randomUUID as uuid } from "node:crypto";
import {
  type AnswerOf,
  type Asking,
  addChild,
  addClass,
  addWish,
  type Endpoint,
  getSchool,
  makeFeed,
  markTaught,
  planNewSession,
  putMoveOff,
  reportSession,
  saveAnswers,
  saveGroup,
  savePreparation,
  savePreset,
  saveReading,
  saveText,
  sayNextOfChild,
  setOwnHours,
  shareSession,
  startSitting,
  writeNote,
} from "#contract";
import { answerTo, part } from "./checks/marking.ts";

/** A class of a school with one of everything, for tests of whose is what. */
export interface OneOfEach {
  readonly classId: string;
  readonly childId: string;
  readonly groupId: string;
  readonly sessionId: string;
  readonly sittingId: string;
  readonly checkId: string;
  readonly readingId: string;
  readonly reportId: string;
  readonly textId: string;
  readonly presetId: string;
  readonly wishId: string;
  readonly noteId: string;
  readonly token: string;
}

type Ask = <E extends Endpoint>(endpoint: E, asking: Asking<E>) => Promise<AnswerOf<E>>;

const at = "2026-11-20T08:30:00.000Z";

/** Fills in one of everything through the contract; all that a person would have written has `word` in it. */
export async function oneOfEach(ask: Ask, word: string): Promise<OneOfEach> {
  const [classId, childId, groupId, sessionId, sittingId, checkId, readingId, reportId, textId, presetId] =
    Array.from({ length: 10 }, () => uuid()) as [
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
    ];
  const order = (await ask(getSchool, {})).orders[0];
  const stepId = order?.content.steps[3]?.id ?? null;
  await ask(addClass, { body: { id: classId, name: `${word} class`, yearGroup: "", orderId: order?.id ?? "" } });
  await ask(markTaught, { params: { id: classId }, body: { id: uuid(), stepId, taughtOn: "2026-11-02", at } });
  await ask(addChild, { body: { id: childId, classId, name: `${word} C.`, note: `${word} note` } });
  const started = await ask(startSitting, {
    body: {
      id: sittingId,
      name: `${word} check`,
      sections: [part("card", { scope: "all" })],
      children: [{ childId, seed: 3, checkIds: [checkId] }],
      startedAt: at,
    },
  });
  const check = started.checks[0];
  if (!check) throw new Error("nothing to check");
  const answers = check.items.slice(0, 4).map((item) => answerTo(check, item, { outcome: "right" }));
  await ask(saveAnswers, { body: { answers } });
  await ask(saveGroup, {
    params: { id: groupId },
    body: {
      versionId: uuid(),
      version: 0,
      name: `${word} group`,
      members: [{ childId, locked: false }],
      targets: [check.items[0] ?? ""],
      at,
    },
  });
  await ask(planNewSession, { body: { id: sessionId, groupId, heldOn: "2026-11-20", target: null, seed: 1 } });
  const { token } = await ask(shareSession, { params: { id: sessionId }, body: { endsOn: "2026-12-20" } });
  await ask(reportSession, {
    params: { id: sessionId },
    body: { id: reportId, by: `${word} D.`, at, came: [childId], reached: null, marks: [], note: `${word} note` },
  });
  await ask(saveReading, { params: { id: readingId }, body: readingOf(childId, word) });
  await ask(saveText, {
    params: { id: textId },
    body: {
      content: { title: `${word} text`, exceptions: [], body: "A man sat on a mat.", questions: [], words: [] },
      version: 0,
      savedAt: at,
      savedBy: `${word} D.`,
    },
  });
  await ask(savePreparation, {
    params: { textId, forKey: `child:${childId}` },
    body: { version: 0, preparation: { ...emptyPreparation, note: `${word} note` } },
  });
  await ask(savePreset, {
    params: { id: presetId },
    body: { version: 0, name: `${word} plan`, purpose: "", sections: [part("card")] },
  });
  const [wishId, noteId] = [uuid(), uuid()];
  await ask(writeNote, {
    ...{ params: { id: noteId }, query: { childId } },
    body: { text: `${word} note of a colleague`, forWhom: { who: "all" }, until: null },
  });
  await ask(addWish, { params: { id: childId }, body: { id: wishId, kind: "alone", otherId: null } });
  await ask(sayNextOfChild, { params: { id: childId }, body: { gpc: "m=m", how: "pinned", until: null } });
  await ask(putMoveOff, { params: { id: childId }, body: { kind: "join", until: "2027-01-10" } });
  const clinic = { day: 1 as const, from: 540, to: 560, what: `${word} clinic` };
  await ask(setOwnHours, { params: { id: childId }, body: { version: 0, hours: { lessons: [clinic], away: [] } } });
  await ask(makeFeed, { body: { id: uuid(), whose: `child:${childId}` } });
  return {
    wishId,
    noteId,
    classId,
    childId,
    groupId,
    sessionId,
    sittingId,
    checkId,
    readingId,
    reportId,
    textId,
    presetId,
    token,
  };
}

/** A preparation with nothing in it. */
export const emptyPreparation = { focus: [], first: [], longer: [], wholes: [], meanings: [], watch: [], note: "" };

/** A short reading of a text. */
export function readingOf(childId: string, word: string) {
  return {
    childId,
    how: "alone" as const,
    textId: "mud",
    title: `${word} title`,
    text: "Mud on a mat.",
    marks: [],
    stoppedAt: null,
    ms: 9000,
    turns: [],
    fit: null,
    voice: { phrases: null, stops: null, pace: null, expression: null },
    understanding: [],
    note: `${word} note`,
    readAt: at,
    day: "2026-11-20",
    markedBy: `${word} D.`,
  };
}
