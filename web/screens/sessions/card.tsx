import type { PlanBody, SessionView } from "#contract";
import { findCorrespondence, ipa, plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { kindsOfPart } from "#core/plans";
import { plural, shortDay } from "#core/saying";
import type { WordVerdict } from "#core/words";
import { todayHere } from "#web/device/clock.ts";
import { BracketWord, Spelling } from "#web/parts/marks.tsx";

interface CardWanted {
  readonly groupName: string;
  readonly heldOn: string;
  readonly names: readonly string[];
  /** A child by its id, where each has cards of its own. */
  readonly nameOf?: (id: string) => string;
  readonly plan: PlanBody;
  /** What the spelling is taught with as one thing. */
  readonly point: SessionView["point"];
  /** How these children read a word, where it is known; such words carry their brackets. */
  readonly readOf?: ((word: string) => WordVerdict | undefined) | undefined;
}

const isSmall = (kind: PlanBody["parts"][number]["kind"]) => kindsOfPart[kind].items === "spellings";

/** The session on one card: on paper one A4 page, on a phone one column. */
export function SessionCard({ groupName, heldOn, names, nameOf, plan, point, readOf }: CardWanted) {
  const { grapheme, sound } = splitGpc(plan.target);
  return (
    <article className="mx-auto max-w-[46rem]" aria-label="Session card">
      <header className="mb-3 flex items-start justify-between gap-4 border-b-2 border-ink pb-2">
        <div>
          <p className="text-xl font-semibold">{groupName}</p>
          <p>
            {shortDay(heldOn, todayHere())},{" "}
            {plural(
              plan.parts.reduce((sum, part) => sum + part.minutes, 0),
              "minute",
            )}
          </p>
          <p>{names.join(", ")}</p>
        </div>
        <div className="text-right">
          <p className="font-child text-5xl leading-none">{showGrapheme(grapheme)}</p>
          <p className="text-sm text-soft">
            “{plainSound(sound)}” as in {findCorrespondence(plan.target)?.keyword}
          </p>
          {point && <p className="text-sm text-soft">of “{point.name}”</p>}
        </div>
      </header>
      <ol className="flex flex-col">
        {plan.parts.map((part, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice, and parts keep their order
          <li key={`${part.kind} ${at}`} className="break-inside-avoid border-b border-line py-2">
            <p className="flex items-baseline justify-between gap-3">
              <span className="font-semibold">{kindsOfPart[part.kind].title}</span>
              <span className="text-sm whitespace-nowrap text-soft">{part.minutes} min</span>
            </p>
            <p className="text-[0.92em] text-soft">{part.how}</p>
            {part.each && part.each.length > 0 && (
              <p className="mt-1 leading-snug">
                {part.each.map(({ childId, items }) => (
                  <span key={childId} className="mr-4">
                    <strong>{nameOf?.(childId)}</strong>{" "}
                    {items.map((gpc, at) => (
                      <span key={gpc} className="whitespace-nowrap">
                        <span className="font-child">{showGrapheme(splitGpc(gpc).grapheme)}</span>
                        <span className="text-[max(0.8em,0.8rem)] text-soft"> {ipa(splitGpc(gpc).sound)}</span>
                        {at < items.length - 1 && ", "}
                      </span>
                    ))}
                  </span>
                ))}
              </p>
            )}
            {part.items.length > 0 && !part.each?.length && (
              <ul
                className={`mt-1 flex flex-wrap ${isSmall(part.kind) ? "gap-1.5" : "gap-x-6 gap-y-1 font-child text-[1.25em]"}`}
              >
                {part.items.map((item) => (
                  <li key={item}>
                    {isSmall(part.kind) ? <Spelling gpc={item} /> : <CardWord text={item} read={readOf?.(item)} />}
                  </li>
                ))}
              </ul>
            )}
            {part.kind === "lastLook" && <MarkGrid names={names} items={part.items} />}
          </li>
        ))}
      </ol>
      <footer className="only-print mt-3 text-[10pt]">
        <p>
          Came:{" "}
          {names.map((name) => (
            <span key={name} className="mr-4 whitespace-nowrap">
              ☐ {name}
            </span>
          ))}
        </p>
        <p className="mt-2">
          Reached and noticed: <span className="inline-block w-[70%] border-b border-ink">&nbsp;</span>
        </p>
        <p className="mt-3 border-b border-ink">&nbsp;</p>
      </footer>
    </article>
  );
}

function CardWord({ text, read }: { text: string; read: WordVerdict | undefined }) {
  return read ? <BracketWord text={text} units={read.reading.units} unexpected={read.unexpected} /> : text;
}

/** A box a child and spelling, for paper: tick, dot or what was said. */
function MarkGrid({ names, items }: { names: readonly string[]; items: readonly string[] }) {
  return (
    <table className="only-print mt-2 border-collapse text-[10pt]">
      <thead>
        <tr>
          <th className="pr-3 text-left font-normal">✓ right at once, s slow, or what was said</th>
          {items.map((gpc) => (
            <th key={gpc} className="w-16 border border-line font-child">
              {showGrapheme(splitGpc(gpc).grapheme)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {names.map((name) => (
          <tr key={name}>
            <th className="pr-3 text-left font-normal">{name}</th>
            {items.map((gpc) => (
              <td key={gpc} className="h-6 border border-line" />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
