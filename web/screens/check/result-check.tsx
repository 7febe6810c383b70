import type { ReactNode } from "react";
import {
  type AnswerTold,
  type CheckResult,
  careWords,
  effortName,
  kinds,
  resultInWords,
  showMixed,
} from "#core/checks";
import { isRight, type StopReason } from "#core/ledger";
import { showGrapheme } from "#core/phonics";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { NotAsked } from "./seek-done.tsx";
import { useSeeking } from "./seeking.ts";
import type { CheckTold } from "./told.ts";

const whyWords: Record<StopReason, string> = {
  done: "",
  suggested: "It was ended early, as the tool had suggested.",
  tired: "It was ended early: the child was tired or upset.",
  stopped: "It was ended early.",
};

/** What one check says: in sentences first, then with the evidence behind them. */
export function CheckPanel({ told, classId, ground }: { told: CheckTold; classId: string; ground: SchoolWords }) {
  const { check, result, answers, notes, why } = told;
  const kind = kinds[check.kind];
  const unasked = useSeeking(check, answers, ground)?.unasked;
  const left = check.items.length - result.asked;
  const [first, ...more] = resultInWords(result);
  const care = careWords(result);
  const about = [
    result.medianMs ? `about ${(result.medianMs / 1000).toFixed(1)} s an item` : "",
    left > 0 && check.setup.form === "deck" && !unasked ? `${left} of ${check.items.length} not asked` : "",
  ].filter(Boolean);
  return (
    <Panel
      title={
        <>
          {kind.name} <span className="font-normal text-soft">{about.join(", ")}</span>
        </>
      }
    >
      <p className="text-lg font-semibold">{first}</p>
      {more.length > 0 && (
        <ul className="mt-1 list-disc pl-5">
          {more.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      {why && whyWords[why] && <p className="mt-1 text-soft">{whyWords[why]}</p>}
      {care && <p className="mt-3 rounded-md bg-damson-pale px-3 py-2">{care}</p>}
      <div className="mt-3 grid items-start gap-x-8 gap-y-4 md:grid-cols-2">
        <Block title={`Missed (${result.missed.length})`} empty={result.missed.length === 0}>
          <Answers list={result.missed} />
        </Block>
        <div className="flex flex-col gap-4">
          {result.effort.length > 0 && (
            <Block title={`Right, ${effortName(check.kind)} (${result.effort.length})`}>
              <Answers list={result.effort} />
            </Block>
          )}
          <Block title={`Known at once (${result.known.length})`} empty={result.known.length === 0}>
            <Items items={result.known.map(kind.show)} />
          </Block>
          {result.mixed.length > 0 && (
            <Block title="Taken for one another">
              <ul>
                {result.mixed.map((pair) => (
                  <li key={`${pair.of} ${pair.asked} ${pair.given}`}>
                    <span className="font-child">{showMixed(pair)}</span>
                    <span className="text-soft">
                      {" "}
                      {pair.count > 1 ? `${pair.count} times, ` : ""}in {[...new Set(pair.items)].join(", ")}
                    </span>
                  </li>
                ))}
              </ul>
            </Block>
          )}
          {result.parts.length > 0 && (
            <Block title="Parts that failed">
              <ul className="flex flex-wrap gap-x-4">
                {result.parts.map(({ gpc, count, items }) => (
                  <li key={gpc}>
                    <span className="font-child">{showGrapheme(gpc.split("=")[0] ?? "")}</span>
                    <span className="text-soft">
                      {" "}
                      {count > 1 ? `${count}×` : ""} {items.join(", ")}
                    </span>
                  </li>
                ))}
              </ul>
            </Block>
          )}
          {unasked && (
            <Block title="Not asked">
              <NotAsked unasked={unasked} />
            </Block>
          )}
          {result.shapes.length > 0 && <Shapes result={result} />}
          <Since result={result} show={kind.show} asked={check.before.length} />
          {notes.length > 0 && (
            <Block title="Notes">
              <ul>
                {notes.map((note) => (
                  <li key={note.id}>
                    {note.item && <span className="font-child">{kind.show(note.item)}: </span>}
                    {note.text} <span className="text-soft">({note.markedBy})</span>
                  </li>
                ))}
              </ul>
            </Block>
          )}
        </div>
      </div>
      <p className="no-print mt-4 flex flex-wrap gap-2">
        {check.kind === "card" && (
          <ButtonLink to={`/groups/new?class=${classId}`}>Make groups from the gaps</ButtonLink>
        )}
        {result.parts.length > 0 && <ButtonLink to="/words">Words to practise with</ButtonLink>}
      </p>
    </Panel>
  );
}

function Block({ title, empty = false, children }: { title: string; empty?: boolean; children: ReactNode }) {
  return (
    <section>
      <h3 className="mb-0.5 font-semibold">{title}</h3>
      {empty ? <p className="text-soft">none</p> : children}
    </section>
  );
}

function Items({ items }: { items: readonly string[] }) {
  return (
    <p className="font-child flex flex-wrap gap-x-3">
      {items.map((item) => (
        <span key={item}>{item}</span>
      ))}
    </p>
  );
}

/** Each answer with what it says; a word with its brackets, the failed ones wavy. */
function Answers({ list }: { list: readonly AnswerTold[] }) {
  return (
    <ul className="flex flex-col gap-1">
      {list.map(({ item, shows, heard, answer, told }) => (
        <li key={item}>
          {told.units.length > 0 ? (
            <>
              <BracketWord text={shows} units={told.units} unexpected={told.failed} />
              {heard !== null && <> – “{heard}”</>}
              <span className="text-sm text-soft"> {told.says.join(" ") || plainWords(answer.outcome)}</span>
            </>
          ) : told.says.length > 0 ? (
            told.says.join(" ")
          ) : (
            <>
              <span className="font-child">{shows}</span>
              <span className="text-sm text-soft"> {plainWords(answer.outcome)}</span>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

function plainWords(outcome: AnswerTold["answer"]["outcome"]): string {
  if (outcome === "none") return "no answer";
  if (outcome === "sounded") return "sounded out";
  if (outcome === "reversed") return "turned round";
  return isRight(outcome) ? "slow" : "";
}

function Shapes({ result }: { result: CheckResult }) {
  return (
    <Block title={kinds[result.kind].piles?.title ?? ""}>
      <table className="border-collapse text-sm">
        <thead>
          <tr className="text-left text-soft">
            <th scope="col" className="pr-4 font-normal">
              <span className="sr-only">Shape</span>
            </th>
            <th scope="col" className="px-2 text-right font-normal">
              at once
            </th>
            <th scope="col" className="px-2 text-right font-normal">
              with effort
            </th>
            <th scope="col" className="px-2 text-right font-normal">
              missed
            </th>
          </tr>
        </thead>
        <tbody>
          {result.shapes.map((shape) => (
            <tr key={shape.name}>
              <th scope="row" className="pr-4 text-left font-normal">
                {shape.name}
              </th>
              <td className="px-2 text-right">{shape.atOnce}</td>
              <td className="px-2 text-right">{shape.effort}</td>
              <td className="px-2 text-right">{shape.missed}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Block>
  );
}

function Since({ result, show, asked }: { result: CheckResult; show: (item: string) => string; asked: number }) {
  const { nowRight, nowMissed } = result;
  return (
    <Block title="Since last time">
      {asked === 0 ? (
        <p className="text-soft">All of this was asked for the first time.</p>
      ) : nowRight.length + nowMissed.length === 0 ? (
        <p className="text-soft">Nothing changed.</p>
      ) : (
        <>
          {nowRight.length > 0 && (
            <p>
              Now right at once: <span className="font-child">{nowRight.map(show).join(", ")}</span>
            </p>
          )}
          {nowMissed.length > 0 && (
            <p>
              Missed, and right last time: <span className="font-child">{nowMissed.map(show).join(", ")}</span>
            </p>
          )}
        </>
      )}
      {result.wonBack.length > 0 && (
        <p>
          Right in a later round: <span className="font-child">{result.wonBack.map(show).join(", ")}</span>
        </p>
      )}
    </Block>
  );
}
