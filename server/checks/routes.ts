import {
  type CheckView,
  getSitting,
  previewSitting,
  type SectionBody,
  type SeekFromBody,
  type SittingView,
  startSitting,
} from "#contract";
import { kinds, minutesFor, mostAsked, type PlannedCheck } from "#core/checks";
import { checkOf } from "#core/ledger";
import { findCorrespondence } from "#core/phonics";
import { mustBeSame } from "../frame/again.ts";
import { refuseFuture } from "../frame/clock.ts";
import { untilGone } from "../frame/jobs.ts";
import { notFound, unfit } from "../frame/problem.ts";
import { slices, turn } from "../frame/turn.ts";
import type { Domain, School } from "../house.ts";
import { dealtFrom, type Known } from "./known.ts";

type Kind = CheckView["kind"];

/** To read what is known of a class takes long: it is done child by child, and others have their turn between. */
const inSlices = { apart: true };
const CHILDREN_AT_ONCE = 2;

async function knowledgeInSlices(school: School, childIds: readonly string[], now: Date): Promise<Known[]> {
  const known: Known[] = [];
  for (const some of slices(childIds, CHILDREN_AT_ONCE)) {
    known.push(...(await school.known.knowledgeOf(some, now)));
    await turn();
  }
  return known;
}

async function beliefsInSlices(
  school: School,
  childIds: readonly string[],
  now: Date,
): Promise<Map<string, SeekFromBody>> {
  const today = await school.settings.dayOf(now);
  const found = new Map<string, SeekFromBody>();
  for (const some of slices(childIds, CHILDREN_AT_ONCE)) {
    for (const [id, from] of await school.standings.seekFrom(some, today)) found.set(id, from);
    await turn();
  }
  return found;
}

/** Checks in one go: planned, begun, and seen with their answers. */
export function sittingRoutes({ serve, jobs }: Domain): void {
  /** The items of each part for each child, drawn off this thread. Who asked and has gone cancels it. */
  async function dealt(
    { school, request }: { readonly school: School; readonly request: Parameters<typeof untilGone>[0] },
    from: ReturnType<typeof dealtFrom>,
    seed: number,
  ): Promise<PlannedCheck[][]> {
    const { checks: settings } = await school.settings.read();
    const { sent: words } = await school.words.read();
    return jobs.run("deal", { ...from, settings, words }, seed, { signal: untilGone(request) });
  }

  /** `fresh`: what is known of its children, when that was just read. */
  async function view(
    { school, now }: { readonly school: School; readonly now: Date },
    id: string,
    fresh?: readonly Known[],
  ): Promise<SittingView> {
    const sitting = await school.checks.findSitting(id);
    if (!sitting) throw notFound("check");
    const checks = await school.checks.ofSitting(id);
    const childIds = [...new Set(checks.map((check) => check.childId))];
    const classes = new Map((await school.classes.brief()).map((one) => [one.id, one.name]));
    const { checks: settings } = await school.settings.read();
    const entries = fresh ? [] : await school.ledger.logOfChecks(checks.map((check) => check.id));
    const checkIds = new Map(
      entries.flatMap((entry) => (entry.outcome === "void" ? [] : [[entry.id, checkOf(entry)]])),
    );
    const known = new Map(
      (fresh ?? (await school.known.knowledgeOf(childIds, now))).map((one) => [one.child.id, one]),
    );
    const ended = checks.map((check) => check.endedAt);
    return {
      id,
      name: sitting.name,
      startedAt: sitting.startedAt,
      endedAt: ended.includes(null) ? null : (ended.sort().at(-1) ?? null),
      children: childIds.flatMap((childId) => {
        const child = known.get(childId)?.child;
        if (!child) return [];
        const { name, note, classId, letterSize, letterSpacing } = child;
        const className = classes.get(classId) ?? "";
        return [{ id: childId, name, note, classId, className, letterSize, letterSpacing }];
      }),
      checks: await Promise.all(
        checks.map(async (check) => {
          const { id: checkId, childId, items, setup, seed, startedAt, endedAt } = check;
          const kind = check.kind as Kind;
          const before = known.get(childId)?.before(check) ?? new Map();
          return {
            id: checkId,
            childId,
            kind,
            setup,
            items,
            seed,
            startedAt,
            endedAt,
            belief: check.belief,
            answers: entries.filter(
              (entry) => (entry.outcome === "void" ? checkIds.get(entry.voids) : checkOf(entry)) === checkId,
            ),
            before: items.flatMap((item) => {
              const outcome = before.get(item);
              return outcome ? [{ item, outcome }] : [];
            }),
            best: setup.form === "minute" ? (known.get(childId)?.best(check) ?? null) : null,
          };
        }),
      ),
      settings,
      faceCode: await school.faces.codeOf(sitting.id),
    };
  }

  function refuseUnknown(sections: readonly SectionBody[]): void {
    for (const { kind, scope, picked } of sections) {
      if (scope !== "picked") continue;
      const odd = picked.find((item) => !kinds[kind].fits(item));
      if (odd === undefined) continue;
      const what = kinds[kind].picks === "spellings" && !findCorrespondence(odd);
      throw unfit(what ? `${odd} is not a spelling this tool knows.` : `“${odd}” is no item of ${kinds[kind].name}.`);
    }
  }

  serve(
    startSitting,
    async ({ body, school, now, request }) => {
      const made = await school.checks.findSitting(body.id);
      if (made) {
        const checks = (await school.checks.ofSitting(body.id)).map((check) => `${check.childId} ${check.id}`);
        const asked = new Set(body.children.flatMap((one) => one.checkIds.map((id) => `${one.childId} ${id}`)));
        const here = { name: made.name, startedAt: made.startedAt, checks: checks.filter((one) => asked.has(one)) };
        mustBeSame("check", here, { name: body.name, startedAt: new Date(body.startedAt).toISOString(), checks });
        return view({ school, now }, body.id);
      }
      refuseFuture(body.startedAt, now);
      refuseUnknown(body.sections);
      const childIds = body.children.map((child) => child.childId);
      if (new Set(childIds).size !== childIds.length)
        throw unfit("A child stands twice in this list. Nothing was begun.");
      const known = await knowledgeInSlices(school, childIds, now);
      if (known.length !== childIds.length) throw unfit("A child of this list is not here any more. Choose again.");
      const { id, name, sections, startedAt } = body;
      const seedOfAll = body.children[0]?.seed ?? 1;
      const from = dealtFrom(
        known,
        sections,
        body.children.map((child) => child.seed),
      );
      const drawn = await dealt({ school, request }, from, seedOfAll);
      const beliefs = sections.some((section) => section.kind === "seek")
        ? await beliefsInSlices(school, childIds, now)
        : new Map<string, SeekFromBody>();
      const checks: Parameters<School["checks"]["insertSitting"]>[1][number][] = [];
      for (const [place, { childId, seed: own, checkIds }] of body.children.entries()) {
        for (const [part, section] of sections.entries()) {
          const checkId = checkIds[part];
          if (!checkId) throw unfit("Each part of the plan needs an id for each child. Nothing was begun.");
          const check = drawn[place]?.[part];
          if (!check || check.items.length === 0) continue;
          const { kind, items, setup } = check;
          const seed = from.together[part] ? seedOfAll : own;
          const belief = kind === "seek" ? (beliefs.get(childId) ?? null) : null;
          const as = { kind, items: [...items], setup, seed, belief };
          checks.push({ id: checkId, childId, place, part, scope: section.scope, ...as, startedAt });
        }
      }
      if (checks.length === 0)
        throw unfit(
          `There is nothing to ask: ${whyNone(sections) ?? "nothing of this has been taught, or all of it is secure"}. Choose another set.`,
        );
      return school.together(async () => {
        await school.checks.insertSitting({ id, name, startedAt }, checks);
        return view({ school, now }, id, known);
      });
    },
    inSlices,
  );

  serve(getSitting, (given) => view(given, given.params.id));

  serve(
    previewSitting,
    async ({ body, school, now, request }) => {
      const known = await knowledgeInSlices(school, body.childIds, now);
      const drawn = await dealt({ school, request }, dealtFrom(known, body.sections, []), 1);
      return {
        children: known.map((one, at) => ({
          id: one.child.id,
          parts: body.sections.map((section, part) => {
            const items = mostAsked(section, drawn[at]?.[part]?.items.length ?? 0);
            const pace = one.pace(section.kind);
            const ownPace = pace !== null && pace.answers >= 6 && section.form === "deck";
            return { items, minutes: minutesFor(section, items, pace), ownPace };
          }),
        })),
      };
    },
    inSlices,
  );
}

/** Why a plan of one part has nothing to ask, where its kind needs more than that it was taught. */
function whyNone([only, ...others]: readonly SectionBody[]): string | undefined {
  return only && others.length === 0 ? kinds[only.kind].none : undefined;
}
