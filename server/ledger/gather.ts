import { type AnswerBody, MOST_ANSWERS } from "#contract";
import type { Fate } from "#core/ledger";
import type { Actor } from "../frame/actor.ts";
import { isFuture } from "../frame/clock.ts";
import { deskOf, type LiveHub } from "../frame/live.ts";
import { turn } from "../frame/turn.ts";
import type { School } from "../house.ts";

/** Marks of one request. */
interface Sent {
  readonly school: School;
  readonly actor: Actor;
  readonly marks: readonly AnswerBody[];
  readonly now: Date;
}

interface Waiting extends Sent {
  done(fates: readonly Fate[]): void;
  failed(error: unknown): void;
}

const notTheirs: Fate = { fate: "refused", says: "This child is of another class or group." };

/**
 * Marks of several requests that wait for the database go into the ledger together, in the order in which they came: many
 * desks that mark at once cost little more than one. When that fails each request is tried alone, so that none is answered
 * for another's fault. To be called outside of a transaction. @returns one fate for
 * each mark of a request, in their order
 */
export function gathering(live: LiveHub): (sent: Sent) => Promise<readonly Fate[]> {
  const bySchool = new Map<string, Waiting[]>();

  /** In one transaction, which first takes along all that came while it waited for its turn. @returns fates by request */
  function together(batch: Waiting[], waiting: Waiting[]): Promise<Fate[][]> {
    const [
      {
        school,
        actor: { schoolId },
      },
    ] = batch as [Waiting];
    return school.together(async () => {
      let room = MOST_ANSWERS - batch.reduce((sum, one) => sum + one.marks.length, 0);
      while (waiting[0] && waiting[0].marks.length <= room) {
        const next = waiting.shift() as Waiting;
        room -= next.marks.length;
        batch.push(next);
      }
      const now = batch.at(-1)?.now ?? new Date(0);
      const refused: Set<string>[] = [];
      for (const { actor, marks } of batch)
        refused.push(
          new Set(await school.own.notTheirs(actor, { thing: "child", ids: marks.map((mark) => mark.childId), now })),
        );
      const theirs = batch.map(({ marks }, at) => marks.filter((mark) => !refused[at]?.has(mark.childId)));
      const taken = await school.ledger.take(theirs.flat(), (instant) => isFuture(instant, now));
      school.afterwards(() => {
        for (const [sittingId, answers] of taken.bySitting) live.marks(deskOf({ schoolId }, sittingId), answers);
        for (const id of taken.ended) live.end(deskOf({ schoolId }, id));
      });
      const fates = taken.fates.values();
      return batch.map(({ marks }, at) =>
        marks.map((mark): Fate => (refused[at]?.has(mark.childId) ? notTheirs : (fates.next().value as Fate))),
      );
    });
  }

  async function empty(waiting: Waiting[], emptied: () => void): Promise<void> {
    for (let first = waiting.shift(); first; first = waiting.shift()) {
      const batch = [first];
      // The embedded database computes in this thread: requests that have arrived are read only when it lets go.
      await turn();
      try {
        const fates = await together(batch, waiting);
        for (const [at, one] of batch.entries()) one.done(fates[at] ?? []);
      } catch (error) {
        if (batch.length === 1) first.failed(error);
        else for (const one of batch) await together([one], []).then(([fates = []]) => one.done(fates), one.failed);
      }
    }
    emptied();
  }

  return (sent) =>
    new Promise((done, failed) => {
      const { schoolId } = sent.actor;
      const one = { ...sent, done, failed };
      const waiting = bySchool.get(schoolId);
      if (waiting) waiting.push(one);
      else {
        const mine = [one];
        bySchool.set(schoolId, mine);
        // Nothing runs between the last look at what waits and this, so that no request is forgotten.
        void empty(mine, () => bySchool.delete(schoolId));
      }
    });
}
