import type { ReactNode } from "react";
import { Link, useParams } from "react-router";
import { getCheck, getSchool } from "#contract";
import { standing, summarise } from "#core/checks";
import { plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { shortDay } from "#web/parts/dates.ts";
import { Spellings } from "#web/parts/marks.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";

/** What a check says: known, not known, confused, changed since last time, and the next step. */
export function Screen() {
  const { checkId = "" } = useParams();
  const { data, error } = useAsk(getCheck, { params: { id: checkId } });
  const school = useAsk(getSchool, {});
  if (error && !data)
    return (
      <Page place="Result" title="Result">
        <Trouble error={error} />
      </Page>
    );
  if (!data || !school.data)
    return (
      <Page place="Result" title="Result">
        <Waiting />
      </Page>
    );
  const result = summarise(standing(data.answers), new Map(data.before.map(({ item, outcome }) => [item, outcome])));
  const one = school.data.classes.find((entry) => entry.id === data.classId);
  const left = data.items.length - result.asked;
  return (
    <Page
      place="Result"
      title={
        <>
          What this check of{" "}
          <Link to={`/child/${data.childId}`} className="underline decoration-line underline-offset-4">
            {data.childName}
          </Link>{" "}
          says
        </>
      }
      about={`${shortDay(data.startedAt.slice(0, 10))}: ${result.known.length} of ${result.asked} right at once${result.medianMs ? `, about ${(result.medianMs / 1000).toFixed(1)} seconds a card` : ""}${left > 0 ? `; stopped with ${left} cards to go, all before that is kept` : ""}`}
      actions={
        <>
          {!data.endedAt && <ButtonLink to={`/check/${data.id}`}>Go on with the check</ButtonLink>}
          <ButtonLink to={`/gaps?class=${data.classId}&child=${data.childId}`} shape="main">
            See it on the map
          </ButtonLink>
          <ButtonLink to="/check">Check another child</ButtonLink>
        </>
      }
    >
      <div className="grid items-start gap-4 md:grid-cols-2">
        <div className="flex flex-col gap-4">
          <Panel title="Next step">
            <Line>{nextStep(result.missed.length, result.slow.length)}</Line>
            <div className="mt-3 flex flex-wrap gap-2">
              <ButtonLink to={`/gaps?class=${data.classId}`}>Gaps of {one?.name}</ButtonLink>
              <ButtonLink to={`/groups/new?class=${data.classId}`}>Make groups</ButtonLink>
            </div>
          </Panel>
          <Panel title={`Known at once (${result.known.length})`}>
            <Spellings gpcs={result.known} />
          </Panel>
          {result.slow.length > 0 && (
            <Panel title={`Right but slow (${result.slow.length})`}>
              <Spellings gpcs={result.slow} />
            </Panel>
          )}
          <Panel title="Since last time">
            {data.before.length === 0 && <Line>These cards were asked for the first time.</Line>}
            {result.nowRight.length > 0 && (
              <Line>
                Now right at once: <Spellings gpcs={result.nowRight} />
              </Line>
            )}
            {result.nowMissed.length > 0 && (
              <Line>
                Missed, and right last time: <Spellings gpcs={result.nowMissed} />
              </Line>
            )}
            {data.before.length > 0 && result.nowRight.length + result.nowMissed.length === 0 && (
              <Line>No card changed.</Line>
            )}
          </Panel>
        </div>
        <div className="flex flex-col gap-4">
          <Panel title={`Not known (${result.missed.length})`}>
            <Spellings gpcs={result.missed} />
            {result.wonBack.length > 0 && (
              <p className="mt-2 text-soft">
                Right in a later round: <Spellings gpcs={result.wonBack} />
              </p>
            )}
          </Panel>
          {result.confusions.length > 0 && (
            <Panel title="Said one for the other">
              <ul className="flex flex-col gap-1">
                {result.confusions.map((entry) => (
                  <li key={`${entry.gpc} ${entry.heard}`}>
                    <span className="font-child">{showGrapheme(splitGpc(entry.gpc).grapheme)}</span>: said “
                    {plainSound(entry.heard)}” for “{plainSound(splitGpc(entry.gpc).sound)}”
                  </li>
                ))}
              </ul>
            </Panel>
          )}
        </div>
      </div>
      <p className="mt-4 max-w-prose text-sm text-soft">
        This is a teaching observation, not a diagnosis. Where gaps stay in spite of good teaching, or hearing, sight
        or speech could be the cause, talk to the family and to the specialist under your local procedure.
      </p>
    </Page>
  );
}

function Line({ children }: { children: ReactNode }) {
  return <p className="mb-1">{children}</p>;
}

function nextStep(missed: number, slow: number): string {
  if (missed === 0 && slow === 0)
    return "Everything asked was right at once. Ask it again on another day; then it is secure.";
  if (missed === 0)
    return "Everything was right, some of it slowly. Short daily practice of the slow ones makes them quick.";
  if (missed <= 4)
    return `${missed} ${missed === 1 ? "spelling is" : "spellings are"} ready to be taught. See who else needs the same.`;
  return "More is open than one session can hold. See who else has the same gaps and let the tool propose groups.";
}
