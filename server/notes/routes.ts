import { listNotes, type NoteAbout, type NoteView, readNotes, takeNoteAway, unreadNotes, writeNote } from "#contract";
import type { Actor } from "../frame/actor.ts";
import { mustBeSame } from "../frame/again.ts";
import { HttpProblem, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { type About, thingOf } from "./about.ts";
import type { NoteRow, NoteSeen } from "./repository.ts";

const forWhomOf = ({ who, forId }: NoteRow): NoteView["forWhom"] =>
  who === "one" ? { who, memberId: forId ?? "" } : { who };

const viewOf = (note: NoteSeen, actor: Actor): NoteView => ({
  ...{ id: note.id, childId: note.childId, groupId: note.groupId, sessionId: note.sessionId },
  ...{
    aboutName: note.aboutName,
    heldOn: note.heldOn,
    text: note.text,
    forWhom: forWhomOf(note),
    forName: note.forName,
  },
  ...{ by: note.by, isMine: note.byId === actor.memberId, at: note.at, until: note.until, isRead: note.isRead },
});

const aboutOf = (asked: NoteAbout): About => ({
  childId: asked.childId ?? null,
  groupId: asked.groupId ?? null,
  sessionId: asked.sessionId ?? null,
});

/** Notes on children, groups and sessions, and who has read them. */
export function noteRoutes({ serve }: Domain): void {
  const mustBeHere = async (school: School, about: About) => {
    const { thing, id } = thingOf(about);
    if (thing === "child" && !(await school.children.find(id))) throw notFound("child");
    if (thing === "group" && !(await school.groups.find(id))) throw notFound("group");
    if (thing === "session" && !(await school.sessions.find(id))) throw notFound("session");
  };
  /** Others of the school to whom it belongs. */
  const colleaguesOf = async (school: School, actor: Actor, about: About, now: Date) =>
    (await school.own.ownersOf({ ...thingOf(about), now })).filter((one) => one.id !== actor.memberId);

  serve(listNotes, async ({ query, school, actor, now }) => {
    const about = aboutOf(query);
    await mustBeHere(school, about);
    const notes = await school.notes.on(actor, await school.settings.dayOf(now), about);
    return {
      notes: notes.map((one) => viewOf(one, actor)),
      colleagues: await colleaguesOf(school, actor, about, now),
    };
  });

  serve(unreadNotes, async ({ school, actor, now }) =>
    (await school.notes.unread(actor, await school.settings.dayOf(now))).map((one) => viewOf(one, actor)),
  );

  serve(writeNote, async ({ params, query, body, school, actor, now }) => {
    const { text, forWhom, until } = body;
    const about = aboutOf(query);
    const { who } = forWhom;
    const forId = forWhom.who === "one" ? forWhom.memberId : null;
    const says = { ...about, text, who, forId, until };
    const made = await school.notes.find(params.id);
    if (made) {
      if (made.byId !== actor.memberId) throw notFound("note");
      const { childId, groupId, sessionId, text, who, forId, until } = made;
      mustBeSame("note", { childId, groupId, sessionId, text, who, forId, until }, says);
    }
    await mustBeHere(school, about);
    if (until !== null && until < (await school.settings.dayOf(now)))
      throw unfit("The last day of the note lies in the past.", [{ field: "until", says: "Choose today or later." }]);
    if (forId !== null && !(await colleaguesOf(school, actor, about, now)).some(({ id }) => id === forId))
      throw unfit("Whoever this note is for has nothing to do with what it is about. Nothing was kept.", [
        { field: "forWhom", says: "Choose someone else, or all." },
      ]);
    const name = actor.memberId === null ? (body.by ?? actor.name) : actor.name;
    const by = { byId: actor.memberId, by: name, at: now.toISOString() };
    await school.notes.put({ id: params.id, ...says, ...by });
    return { done: true as const };
  });

  serve(takeNoteAway, async ({ params, school, actor, now }) => {
    const note = await school.notes.find(params.id);
    // What someone else wrote for themselves is not told to be there.
    if (!note || (note.byId !== actor.memberId && note.who !== "all")) throw notFound("note");
    if (note.byId !== actor.memberId && actor.as !== "lead")
      throw new HttpProblem(403, "Not yours to do", "A note is taken away by whoever wrote it, or by the lead.");
    await school.notes.takeAway(params.id, now.toISOString());
    return { done: true as const };
  });

  serve(readNotes, async ({ body, school, actor }) => {
    await school.notes.haveRead(actor, body.ids);
    return { done: true as const };
  });
}
