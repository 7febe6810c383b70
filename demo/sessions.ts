import { planNewSession, type ReportBody, reportSession } from "#contract";
import type { Dice } from "#core/checks";
import { inSession } from "#core/ledger";
import { answerCard } from "#core/readers";
import { type DemoRequest, request } from "./checks.ts";
import { adults } from "./people.ts";
import { type Pupil, practise } from "./pupil.ts";

export interface DemoGroup {
  readonly id: string;
  readonly name: string;
  readonly members: readonly Pupil[];
  readonly targets: string[];
}

interface SessionWanted {
  readonly group: DemoGroup;
  readonly week: number;
  readonly day: string;
  readonly target: string;
  /** Which group it is, from 0: when it meets, and with whom. */
  readonly at: number;
  readonly from: Dice;
  readonly uuid: () => string;
}

/** A session that was planned, held and handed back: who came learned something, and was asked for it at the end. */
export function heldSession({ group, week, day, target, at, from, uuid }: SessionWanted): readonly DemoRequest[] {
  const id = uuid();
  const planned = request(planNewSession, {
    body: { id, groupId: group.id, heldOn: day, target, seed: from.pick(100_000) },
  });
  const came = group.members.filter((pupil) => !pupil.away?.includes(week) && from.share() > 0.06);
  for (const pupil of came) practise(pupil, target, week, 0.25 + pupil.pace * 0.3);
  const marks = came.map((pupil) => {
    const reply = answerCard(pupil.temper, target, pupil.learned.get(target) ?? 0, 0, from);
    const outcome = reply.outcome as ReportBody["marks"][number]["outcome"];
    return { id: uuid(), childId: pupil.id, gpc: target, outcome };
  });
  const time = `${day}T10:${String(10 + at * 15)}:00.000Z`;
  const by = adults.assistants[at % 2] as string;
  for (const mark of marks) {
    const given = {
      id: mark.id,
      childId: mark.childId,
      ...inSession("card", id, null),
      tags: [],
      item: mark.gpc,
      ms: null,
      pass: 1,
      markedAt: time,
      day,
      markedBy: by,
    };
    const answer =
      mark.outcome === "wrong"
        ? { ...given, outcome: mark.outcome, heard: null, units: null }
        : { ...given, outcome: mark.outcome };
    came.find((pupil) => pupil.id === mark.childId)?.answers.push(answer);
  }
  const missing = group.members.length - came.length;
  const notes = [
    "",
    "Read the sentence twice over and were proud of it.",
    "The bell rang early.",
    "Tapping the sounds helped today.",
    "Two of them still stop before the last word.",
  ];
  const reported = request(reportSession, {
    params: { id },
    body: {
      id: uuid(),
      by,
      at: time,
      came: came.map((pupil) => pupil.id),
      reached: from.share() < 0.7 ? "lastLook" : "writeWords",
      marks,
      note: missing > 1 ? "Small group today." : (notes[from.pick(notes.length)] ?? ""),
    },
  });
  return [planned, reported];
}
