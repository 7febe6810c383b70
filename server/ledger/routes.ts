import { type AnswerBody, saveAnswers, sentAnswer } from "#contract";
import { isFuture } from "../frame/clock.ts";
import { deskOf } from "../frame/live.ts";
import type { Domain } from "../house.ts";

interface Told {
  readonly fate: "kept" | "there" | "refused";
  readonly says: string;
}

/** Where marks of devices arrive: each is kept, there already, or refused with its reason. */
export function ledgerRoutes({ serve, live }: Domain): void {
  serve(saveAnswers, async ({ body, school, actor, now }) => {
    const read = body.answers.map((sent) => sentAnswer.safeParse(sent));
    const childIds = read.flatMap((one) => (one.success ? [one.data.childId] : []));
    const others = new Set(await school.people.notTheirs(actor, "child", childIds));
    const refusal = (mark: AnswerBody): string | undefined => {
      if (others.has(mark.childId)) return "This child is of another class or group.";
      // The words of a text come with the reading, and what was said of a session with its report.
      if (mark.outcome !== "void" && mark.source.kind !== "check")
        return "A mark that comes alone needs the check that it was made in.";
      return undefined;
    };
    const marks = read.flatMap((one) => (one.success && !refusal(one.data) ? [one.data] : []));
    const taken = await school.ledger.take(marks, (instant) => isFuture(instant, now));
    school.afterwards(() => {
      for (const [sittingId, answers] of taken.bySitting)
        live.desk(deskOf(actor, sittingId), { kind: "answers", answers: [...answers] });
      for (const id of taken.ended) live.end(deskOf(actor, id));
    });
    const fates = [...taken.fates];
    const told = read.map((one): Told => {
      if (!one.success) return { fate: "refused", says: malformed(one.error.issues) };
      const refused = refusal(one.data);
      if (refused) return { fate: "refused", says: refused };
      const fate = fates.shift();
      return { fate: fate?.fate ?? "refused", says: fate?.fate === "refused" ? fate.says : "" };
    });
    const idOf = (at: number) => String((body.answers[at] as { id?: unknown } | null)?.id ?? "");
    return {
      fates: told.map((one, at) => ({ at, ...one })),
      saved: told.flatMap(({ fate }, at) => (fate === "refused" ? [] : [idOf(at).toLowerCase()])),
      refused: told.flatMap(({ fate, says }, at) => (fate === "refused" ? [{ id: idOf(at), says }] : [])),
    };
  });
}

function malformed(issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]): string {
  const [first] = issues;
  const where = first?.path.map(String).join(".");
  return `This mark cannot be read${where ? ` (${where}: ${first?.message})` : ""}.`;
}
