import { answerForms, exceptionWays } from "#core/checks";
import { saysOfFocus } from "./focus.ts";
import { kindOfFocus } from "./focus-kind.ts";
import { howTo } from "./how-to.ts";
import { kindsOfPart } from "./kinds.ts";
import type { SessionPlan } from "./plan.ts";
import type { Routine, RoutinePart } from "./routine.ts";

/**
 * The parts of a session as a routine for others: their order, minutes, who does them and marks. What the adult does is kept where it is
 * in someone's own words; what the tool wrote for this spelling is written anew for the next.
 */
export function routineOf(plan: Pick<SessionPlan, "target" | "second" | "focus" | "parts">, name: string): Routine {
  const { target, second, focus = [] } = plan;
  const kind = kindOfFocus(focus);
  const ways = answerForms.flatMap((answerForm) =>
    exceptionWays.map((exceptionWay) => ({ answerForm, exceptionWay, madeUp: true })),
  );
  const isOurs = (part: SessionPlan["parts"][number]) =>
    ways.some((one) => howTo(part.kind, target, { second, ways: one }) === part.how) ||
    (kind !== undefined && exceptionWays.some((way) => saysOfFocus(kind, way) === part.how));
  return {
    ...{ name, about: "" },
    parts: plan.parts.map(
      (part): RoutinePart => ({
        ...{ kind: part.kind, minutes: part.minutes, who: part.who ?? kindsOfPart[part.kind].who },
        how: isOurs(part) ? "" : part.how,
        ...(part.marks === undefined ? {} : { marks: part.marks }),
      }),
    ),
  };
}
