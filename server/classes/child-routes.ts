import { isDeepStrictEqual } from "node:util";
import {
  addChild,
  type ChildView,
  editChild,
  eraseChild,
  evidence,
  exportChild,
  getChild,
  importChildren,
  listChildren,
  type MapOf,
  setAbsent,
  traces,
} from "#contract";
import { isGiven, isRight, type KindId } from "#core/ledger";
import { movedMost, type Skill } from "#core/mastery";
import { missedOf } from "#core/order";
import { findCorrespondence } from "#core/phonics";
import { sameName } from "#core/roster";
import { mustAgree, mustBeSame } from "../frame/again.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

async function mustChild(school: School, id: string): Promise<ChildView> {
  const child = await school.children.find(id);
  if (!child) throw notFound("child");
  return child;
}

async function refuseSameName(school: School, classId: string, name: string, exceptId?: string): Promise<void> {
  if (await school.children.nameTaken(classId, name, exceptId)) {
    throw unfit(`A child called “${name}” is already in this class. Add a letter that tells them apart.`, [
      { field: "name", says: "Already in this class." },
    ]);
  }
}

async function mustClass(school: School, id: string) {
  const found = await school.classes.find(id);
  if (!found) throw unfit("This class does not exist any more.", [{ field: "classId", says: "Choose a class." }]);
  return found;
}

/** Children, one by one and by the list: what is kept about each, and all that follows from it. */
export function childRoutes({ serve }: Domain): void {
  serve(listChildren, ({ query, school }) => school.children.list(query.classId));

  serve(addChild, async ({ body, school }) => {
    await mustClass(school, body.classId);
    const made = await school.children.find(body.id);
    if (made) {
      const { id, classId, name, note } = made;
      mustBeSame("child", { id, classId, name, note }, body);
      return made;
    }
    await refuseSameName(school, body.classId, body.name);
    await school.children.insert([body]);
    return mustChild(school, body.id);
  });

  serve(importChildren, async ({ body, school }) => {
    const classes = new Set((await school.classes.brief()).map((one) => one.id));
    const ids = body.children.map(({ id }) => id);
    const classIds = [...new Set(body.children.map(({ classId }) => classId))];
    const here = await school.children.whoIsIn({ ids, classIds });
    const known = new Map(here.map(({ id, classId, name, note }) => [id, { id, classId, name, note }]));
    const names = new Set(
      here.filter((child) => !child.archived).map((child) => `${child.classId} ${sameName(child.name)}`),
    );
    const refused: { id: string; says: string }[] = [];
    const good = body.children.filter((child) => {
      const key = `${child.classId} ${sameName(child.name)}`;
      const made = known.get(child.id);
      if (made) {
        if (!isDeepStrictEqual(made, child)) refused.push({ id: child.id, says: "Another child was made under it." });
        return false;
      }
      if (!classes.has(child.classId)) refused.push({ id: child.id, says: "This class does not exist any more." });
      else if (names.has(key)) refused.push({ id: child.id, says: "Already in this class." });
      else {
        names.add(key);
        return true;
      }
      return false;
    });
    const added = await school.children.insert(good);
    return { added: added.length, refused };
  });

  serve(editChild, async ({ params, body, school, now }) => {
    const child = await mustChild(school, params.id);
    if (body.classId) await mustClass(school, body.classId);
    const leftOn = async (archived: boolean) => (archived ? await school.settings.dayOf(now) : null);
    const after = { ...child, ...body };
    if (!after.archived) await refuseSameName(school, after.classId, after.name, child.id);
    const { version, ...change } = body;
    const left =
      body.archived === undefined || body.archived === child.archived ? {} : { leftOn: await leftOn(body.archived) };
    if (!(await school.children.update(child.id, version, { ...change, ...left }))) {
      const { classId, name, note, archived, letterSize, letterSpacing } = await mustChild(school, child.id);
      mustAgree("this child", {
        version: child.version,
        mine: change,
        theirs: { classId, name, note, archived, letterSize, letterSpacing },
      });
    }
    return mustChild(school, child.id);
  });

  serve(setAbsent, async ({ params, body, school, now }) => {
    const today = await school.settings.dayOf(now);
    const { absent, day = today } = body;
    if (day > today)
      throw unfit("That day is still ahead. Nothing was changed.", [
        { field: "day", says: "Choose today, or a day before." },
      ]);
    if (!(await school.away.say(params.id, { day, absent, today }))) throw notFound("child");
    return mustChild(school, params.id);
  });

  serve(getChild, async ({ params, school, now }) => {
    const child = await mustChild(school, params.id);
    const counts = await school.ledger.countsOfChecks(child.id);
    const rows = await school.checks.ofChild(child.id);
    const checks = rows.map((check) => {
      const { id, sittingId, startedAt, endedAt, items } = check;
      return {
        id,
        sittingId,
        kind: check.kind as KindId,
        startedAt,
        endedAt,
        cards: items.length,
        ...(counts.get(id) ?? { asked: 0, right: 0 }),
      };
    });
    const setups = new Map(rows.map((check) => [check.id, check.setup]));
    const confusions = await school.standings.confusionsOf(child.id, setups, await school.settings.dayOf(now));
    const groups = (await school.groups.list()).filter(
      (group) => !group.closed && group.members.some((member) => member.childId === child.id),
    );
    return {
      child,
      checks,
      groups: groups.map(({ id, name }) => ({ id, name })),
      away: await awayOf(school, child),
      leftOut: (await school.standings.leftOutOfChild(child.id)).map(({ answer, why }) => {
        const { id, day, markedBy } = answer;
        return { id, day, by: markedBy, why };
      }),
      confusions: confusions.map(({ pair: _, items, ...one }) => ({ ...one, items: [...items] })),
    };
  });

  serve(evidence, async ({ params, query, school, now }) => {
    const child = await mustChild(school, params.id);
    const today = await school.settings.dayOf(now);
    const { standing, why, history } = await school.standings.reasonFor(child.id, skillOf(query), today);
    const { state, chance, low, high, answers, halfLife, judged = null } = standing;
    const log = await school.ledger.logOfChildren([child.id]);
    const kind = query.of === "spelling" ? "write" : "card";
    const voided = new Set(log.flatMap((answer) => (answer.outcome === "void" ? [answer.voids] : [])));
    return {
      ...{ state, why, chance, low, high, answers, halfLife, judged },
      moved: movedMost(history).map(({ answer }) => answer.id),
      pieces: history
        .map(({ answer, says, before, after }) => ({
          id: answer.id,
          day: answer.day,
          by: answer.markedBy,
          says,
          right: isRight(answer.outcome),
          readingId: answer.source.kind === "reading" ? answer.source.readingId : null,
          before,
          after: after.chance,
          low: after.low,
          high: after.high,
          ms: answer.ms,
        }))
        .reverse(),
      takenBack: log
        .filter((one) => isGiven(one) && one.kind === kind && one.item === query.gpc && voided.has(one.id))
        .reverse(),
    };
  });

  serve(traces, async ({ params, school }) => school.erasing.countTraces(await mustChild(school, params.id)));

  serve(exportChild, async ({ params, school, now }) => {
    const child = await mustChild(school, params.id);
    const className = (await school.classes.find(child.classId))?.name ?? "";
    const versions = await school.groups.historyOfChild(child.id);
    const checks = await school.checks.ofChild(child.id);
    return {
      format: "keen-sapling child 3" as const,
      exportedAt: now.toISOString(),
      child,
      className,
      answers: await school.ledger.logOfChildren([child.id]),
      checks: checks.map(({ id, kind, scope, items, startedAt, endedAt, belief }) => ({
        ...{ id, kind: kind as KindId, scope, items, startedAt, endedAt, belief },
      })),
      awayOn: [...((await school.away.days(child.id)).get(child.id) ?? [])],
      groups: versions.map(({ name, savedAt, targets, besides }) => ({ name, savedAt, targets, besides })),
      readings: await school.readings.ofChild(child.id),
      sessions: await school.sessions.ofChild(child.id),
      places: await school.places.historyOfChild(child.id),
      ...(await school.grouping.ofChild(child.id)),
      hours: (await school.week.ownHoursOf(child.id))?.hours ?? null,
      notes: await school.notes.ofChild(child.id),
    };
  });

  serve(
    eraseChild,
    async ({ params, school }) => {
      await school.together(async () => {
        await school.erasing.eraseAll([await mustChild(school, params.id)]);
      });
      await school.leaveNoTrace();
      return { done: true as const };
    },
    // The dump waits for the transaction, so that it may not be within one.
    { apart: true },
  );
}

const verbs = { reading: "say", spelling: "spell", blending: "blend" } as const satisfies Record<MapOf, string>;

/** The skill that a cell of a map is about. */
function skillOf({ gpc, of = "reading" }: { readonly gpc: string; readonly of?: MapOf | undefined }): Skill {
  if (of !== "blending" && !findCorrespondence(gpc))
    throw unfit("Write it as spelling=sound, for example ea=ee.", [{ field: "gpc", says: "This is no spelling." }]);
  return `${verbs[of]} ${gpc}`;
}

/** The days on which a child was away, the newest first, with what it was to be taught on them. */
async function awayOf(school: School, child: { readonly id: string; readonly classId: string }) {
  const days = (await school.away.days(child.id)).get(child.id) ?? [];
  if (days.length === 0) return [];
  const { since } = (await school.taught.taughtByChild())(child.id, child.classId);
  return [...days].reverse().map((day) => {
    const things = [...missedOf(since, new Set([day]))];
    return {
      day,
      gpcs: things.filter((thing) => findCorrespondence(thing)),
      words: things.filter((thing) => !findCorrespondence(thing)),
    };
  });
}
