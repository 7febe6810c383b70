import { Link } from "react-router";
import type { BlockSessionView } from "#contract";
import { listed, shortDay, timeInWords } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { Spelling, Spellings } from "#web/parts/marks.tsx";
import { SpellingOptions } from "#web/parts/spelling-row.tsx";
import type { About } from "#web/parts/teaches.tsx";
import { whyAbout, whyOf } from "./saying.ts";

interface ChosenWanted {
  readonly session: BlockSessionView;
  readonly today: string;
  /** What it could be given instead. */
  readonly gpcs: readonly string[];
  /** What is no spelling that it could be about. */
  readonly abouts: readonly About[];
  readonly nameOf: (id: string) => string | undefined;
  /** Null gives the day back to the tool. */
  readonly onFix: (gpcs: string[] | null, focus?: readonly string[]) => void;
  readonly busy: boolean;
  readonly onPlan: () => void;
}

const REVIEW = "review";
const keyOf = (ids: readonly string[]): string => ids.join("|");

/** One session of the weeks: what it holds and why, and what can be changed about it. */
export function ChosenSession({ session, today, gpcs, abouts, nameOf, busy, onFix, onPlan }: ChosenWanted) {
  const { on, from, minutes, room, points, focus, cards, cardsOnly, look, by, sessionId } = session;
  const [first, second] = points.map(({ gpc }) => gpc);
  const others = [...new Set([...points.map(({ gpc }) => gpc), ...gpcs])];
  const choose = (at: 0 | 1, gpc: string) => {
    if (gpc === REVIEW) return onFix([]);
    const about = abouts.find(({ ids }) => keyOf(ids) === gpc);
    if (about) return onFix([], about.ids);
    const next = at === 0 ? [gpc, second] : [first, gpc];
    onFix(next.filter((one): one is string => Boolean(one)));
  };
  return (
    <section aria-label="This session" className="mt-3 border-t border-line pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h3 className="font-semibold">
          {shortDay(on, today)}
          {from !== null && ` at ${timeInWords(from)}`}, {minutes} minutes
        </h3>
        {sessionId ? (
          <Link
            to={`/sessions/${sessionId}`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            Open its plan
          </Link>
        ) : (
          <Button working={busy} onClick={onPlan}>
            Fill this session
          </Button>
        )}
      </div>
      <ul className="mt-1 flex flex-col gap-1">
        {points.map((point) => (
          <li key={point.gpc}>
            <Spelling gpc={point.gpc} /> {point.name && <span className="text-soft">({point.name})</span>}{" "}
            {whyOf(point, nameOf)}
          </li>
        ))}
        {focus && (
          <li>
            <span className="font-semibold">{focus.name}.</span> {whyAbout(focus, nameOf)}
          </li>
        )}
        {points.length === 0 && !focus && <li>Nothing new: what was taught is read, written and looked at again.</li>}
        {cardsOnly.length > 0 && (
          <li className="text-soft">
            {listed(cardsOnly.map((id) => nameOf(id) ?? "a child who left"))}{" "}
            {cardsOnly.length === 1 ? "says" : "say"} it at sight: for the cards alone.
          </li>
        )}
        {look.length > 0 && (
          <li className="text-soft">
            The last of its week: look at <Spellings gpcs={look} />
          </li>
        )}
      </ul>
      {cards.length > 0 && (
        <details className="mt-2">
          <summary className="min-h-6 cursor-pointer text-sm">Each child's cards</summary>
          <ul className="mt-1 flex flex-col gap-1 text-sm">
            {cards.map(({ childId, gpcs: own }) => (
              <li key={childId} className="flex flex-wrap items-center gap-2">
                <span className="w-28">{nameOf(childId)}</span> <Spellings gpcs={own} />
              </li>
            ))}
          </ul>
        </details>
      )}
      {by === "session" ? (
        <p className="mt-2 text-sm text-soft">
          It is planned with its words. What it teaches is changed in its plan.
        </p>
      ) : (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <div className="w-44">
            <Choice
              label="Teach"
              value={focus ? keyOf(focus.ids) : (first ?? REVIEW)}
              onChange={(event) => choose(0, event.target.value)}
            >
              <option value={REVIEW}>nothing new: review</option>
              <SpellingOptions gpcs={others} />
              {abouts.map(({ name, ids }) => (
                <option key={keyOf(ids)} value={keyOf(ids)}>
                  {name}
                </option>
              ))}
            </Choice>
          </div>
          {first && (second || room > 1) && (
            <div className="w-44">
              <Choice label="and" value={second ?? ""} onChange={(event) => choose(1, event.target.value)}>
                <option value="">nothing else</option>
                <SpellingOptions gpcs={others.filter((gpc) => gpc !== first)} />
              </Choice>
            </div>
          )}
          {by === "teacher" && <Button onClick={() => onFix(null)}>As the tool works it out</Button>}
        </div>
      )}
    </section>
  );
}
