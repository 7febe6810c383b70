import { type AnswerBody, isAtLeast, saveAnswers, sentAnswer } from "#contract";
import { kinds } from "#core/checks";
import type { Domain } from "../house.ts";
import { gathering } from "./gather.ts";

interface Told {
  readonly fate: "kept" | "there" | "refused";
  readonly says: string;
}

/** Where marks of devices arrive: each is kept, there already, or refused with its reason. */
export function ledgerRoutes({ serve, live }: Domain): void {
  const gather = gathering(live);
  serve(
    saveAnswers,
    async ({ body, school, actor, now }) => {
      const read = body.answers.map((sent) => sentAnswer.safeParse(sent));
      const mayJudge = actor.as !== "visitor" && isAtLeast(actor.as, "teacher");
      const comesAlone = (mark: AnswerBody) =>
        isOfCheck(mark) || isWhileTaught(mark) || (mayJudge && isJudgement(mark));
      const marks = read.flatMap((one) =>
        one.success && comesAlone(one.data) && !isOdd(one.data) ? [one.data] : [],
      );
      const fates = marks.length === 0 ? [] : [...(await gather({ school, actor, marks, now }))];
      const told = read.map((one): Told => {
        if (!one.success) return { fate: "refused", says: malformed(one.error.issues) };
        if (!comesAlone(one.data))
          return {
            fate: "refused",
            says: "A mark that comes alone needs the check or the session that it was made in.",
          };
        if (isOdd(one.data))
          return { fate: "refused", says: `${one.data.item} is nothing that a child can be asked so.` };
        const fate = fates.shift();
        return { fate: fate?.fate ?? "refused", says: fate?.fate === "refused" ? fate.says : "" };
      });
      const idOf = (at: number) => String((body.answers[at] as { id?: unknown } | null)?.id ?? "");
      return {
        fates: told.map((one, at) => ({ at, ...one })),
        saved: told.flatMap(({ fate }, at) => (fate === "refused" ? [] : [idOf(at).toLowerCase()])),
        refused: told.flatMap(({ fate, says }, at) => (fate === "refused" ? [{ id: idOf(at), says }] : [])),
      };
    },
    { apart: true },
  );
}

/** The words of a text come with the reading, and what is said of a session afterwards with its report: never alone. */
function isOfCheck(mark: AnswerBody): boolean {
  return mark.outcome === "void" || mark.source.kind === "check";
}

/** Marked while a session is taught, before anyone has reported it. */
function isWhileTaught(mark: AnswerBody): boolean {
  return mark.outcome !== "void" && mark.source.kind === "session" && mark.source.reportId === null;
}

/** Of a session no check has dealt what is asked: it must be an item of its kind. */
function isOdd(mark: AnswerBody): mark is AnswerBody & { item: string } {
  return isWhileTaught(mark) && "kind" in mark && !kinds[mark.kind].fits(mark.item);
}

function isJudgement(mark: AnswerBody): boolean {
  return mark.outcome !== "void" && mark.source.kind === "judgement";
}

function malformed(issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]): string {
  const [first] = issues;
  const where = first?.path.map(String).join(".");
  return `This mark cannot be read${where ? ` (${where}: ${first?.message})` : ""}.`;
}
