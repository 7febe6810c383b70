import {
  findModel,
  getChanges,
  getForesight,
  getGaps,
  getNumbers,
  getOtherNeeds,
  getReaders,
  getSecondLooks,
  getWorth,
} from "#contract";
import { describeParameter, LEAST_TO_REFIT, otherNeedName, parametersWith, refittable, shipped } from "#core/mastery";
import { mustRead } from "#core/plans";
import { untilGone } from "../frame/jobs.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain } from "../house.ts";

/** So many answers are fitted at most: under a minute of computing. The same children are kept aside each time. */
const [MOST_FITTED, SEED] = [12_000, 1];

/** How children stand: the gap map, and what readers of a text can build on. */
export function standingRoutes({ serve, jobs }: Domain): void {
  serve(getGaps, async ({ query, school, now }) =>
    school.standings.gapMap(await school.settings.dayOf(now), query.classId, query.of),
  );

  serve(getNumbers, async ({ school, now }) => school.standings.numbers(await school.settings.dayOf(now)));

  serve(getForesight, async ({ school, now, request }) => {
    const ids = (await school.children.list()).map((child) => child.id);
    const wanted = await school.standings.toForetell(ids);
    const { ways, bands, ...counts } = await jobs.run("foretellCards", wanted, 1, { signal: untilGone(request) });
    const ownModel = await school.settings.ownModel();
    return { today: await school.settings.dayOf(now), ...counts, ownModel, ways: [...ways], bands: [...bands] };
  });

  serve(
    findModel,
    async ({ school, now, request }) => {
      const ids = (await school.children.list()).map((child) => child.id);
      const wanted = await school.standings.toForetell(ids, MOST_FITTED);
      const found = await jobs.run("findModelFor", wanted, SEED, { signal: untilGone(request) });
      if (!found)
        throw unfit(
          `It takes ${LEAST_TO_REFIT} answers to cards to say anything of this school alone. What ships stays.`,
        );
      const before = parametersWith(wanted.own);
      return {
        ...found,
        values: { ...found.values },
        foundOn: await school.settings.dayOf(now),
        changes: refittable.flatMap((name) => {
          const [from, to] = [before[name], found.values[name] ?? shipped[name]];
          return from === to ? [] : [{ name, means: describeParameter(name).means, from, to }];
        }),
      };
    },
    { apart: true },
  );

  serve(
    getWorth,
    async ({ query, school, now, request }) => {
      const { gpcs, children } = await school.standings.chancesOf(await school.settings.dayOf(now), query.classId);
      const { sent: words } = await school.words.read();
      const texts = (await school.texts.listOwn()).map(({ id, content: { title, body } }) => ({ id, title, body }));
      const wanted = { words, gpcs, children, texts };
      const worth = await jobs.run("worthFor", wanted, SEED, { signal: untilGone(request) });
      const lists = (of: Readonly<Record<string, readonly string[]>>) =>
        Object.fromEntries(Object.entries(of).map(([gpc, list]) => [gpc, [...list]]));
      return {
        gpcs,
        rows: worth.rows.map(({ id, opens, texts: brought, next, fades, mixed }) => ({
          ...{ id, fades: [...fades], mixed: [...mixed] },
          opens: [...opens],
          texts: [...brought],
          next: [...next],
        })),
        examples: lists(worth.examples),
        titles: lists(worth.titles),
      };
    },
    { apart: true },
  );

  serve(getOtherNeeds, async ({ query, school, now }) => {
    const children = (await school.children.list(query.classId)).filter((child) => !child.archived);
    const needs = await school.standings.otherNeedsOf(
      children.map(({ id }) => id),
      await school.settings.dayOf(now),
    );
    return {
      children: children.map(({ id, name }) => ({
        ...{ id, name },
        needs: (needs.get(id) ?? []).map((one) => ({ ...one, name: otherNeedName(one.id), items: [...one.items] })),
      })),
    };
  });

  serve(getChanges, async ({ params, query, school, now }) => {
    const { sittingId, readingId, sessionId } = query;
    if ([sittingId, readingId, sessionId].filter((one) => one !== undefined).length !== 1)
      throw unfit("Ask for one check, one reading or one session.");
    if (!(await school.children.find(params.id))) throw notFound("child");
    const which = readingId
      ? { readingId }
      : sessionId
        ? { sessionId }
        : { checkIds: (await school.checks.ofSitting(sittingId ?? "")).map((check) => check.id) };
    const { changes, skills } = await school.standings.changesBy(params.id, which, await school.settings.dayOf(now));
    return { changes: [...changes], skills };
  });

  serve(getSecondLooks, async ({ school, now }) => {
    const children = (await school.children.list()).filter((child) => !child.archived);
    const classes = new Map((await school.classes.list()).map((one) => [one.id, one]));
    const inClass = children.filter((child) => !classes.get(child.classId)?.archived);
    const looks = await school.standings.secondLooks(
      inClass.map((child) => child.id),
      await school.settings.dayOf(now),
    );
    return inClass.flatMap(({ id, name, classId }) => {
      const cards = looks.get(id);
      return cards ? [{ id, name, className: classes.get(classId)?.name ?? "", cards: [...cards] }] : [];
    });
  });

  serve(getReaders, async ({ query, school, now }) => {
    const today = await school.settings.dayOf(now);
    const asked = [query.classId, query.groupId, query.childId].filter((one) => one !== undefined);
    if (asked.length !== 1) throw unfit("Ask for one class, one group or one child.");
    if (query.classId) {
      const found = await school.classes.find(query.classId);
      if (!found) throw notFound("class");
      const ids = (await school.children.list(found.id)).filter((child) => !child.archived).map((child) => child.id);
      const { gpcs, exceptionWords } = await school.taught.taughtToClass(found.id);
      const { children, needed, age } = await school.standings.readersOf(ids, today);
      return { name: found.name, known: [...gpcs], wholes: [...exceptionWords], targets: needed, children, age };
    }
    const group = query.groupId ? await school.groups.find(query.groupId) : undefined;
    if (query.groupId && !group) throw notFound("group");
    const ids = group ? group.members.map((member) => member.childId) : [query.childId ?? ""];
    const { children, needed, age } = await school.standings.readersOf(ids, today);
    if (!group && children.length === 0) throw notFound("child");
    return {
      name: group?.name ?? children[0]?.name ?? "",
      known: inEnough(
        children.map((child) => child.known),
        mustRead(group?.reads ?? "all", children.length),
      ),
      wholes: inEnough(
        children.map((child) => child.wholes),
        children.length,
      ),
      targets: group && group.targets.length > 0 ? group.targets : needed,
      ...{ children, age },
    };
  });
}

/** What so many of the lists have, in the order in which it first comes; nothing when there is no list. */
function inEnough(lists: readonly (readonly string[])[], enough: number): string[] {
  const sets = lists.map((list) => new Set(list));
  return [...new Set(lists.flat())].filter((entry) => sets.filter((set) => set.has(entry)).length >= enough);
}
