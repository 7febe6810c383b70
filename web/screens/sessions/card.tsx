import type { PlanBody, SessionView } from "#contract";
import { asIn, ipa, plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { focusName, hasMarks, kindsOfPart, targetsOf, teachesNew } from "#core/plans";
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

/** Words that are only heard are read by the adult alone. */
const isSpoken = (kind: PlanBody["parts"][number]["kind"]) => kindsOfPart[kind].items === "spoken";
/** More parts than this stand in two columns on paper, so that a card is one page. */
const LONG = 6;
const isSmall = (kind: PlanBody["parts"][number]["kind"]) => kindsOfPart[kind].items === "spellings";

/** The session on one card: on paper one A4 page, on a phone one column. */
export function SessionCard({ groupName, heldOn, names, nameOf, plan, point, readOf }: CardWanted) {
  const isLong = plan.parts.length > LONG;
  const looked = plan.parts.find(({ kind }) => kind === "lastLook");
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
          <div className="flex justify-end gap-6">
            {plan.focus && <p className="max-w-72 text-xl">{focusName(plan.focus)}</p>}
            {shownOn(plan).map((gpc) => (
              <div key={gpc}>
                <p className="pb-1.5 font-child text-5xl leading-none">{showGrapheme(splitGpc(gpc).grapheme)}</p>
                <p className="text-sm text-soft">
                  “{plainSound(splitGpc(gpc).sound)}”{asIn(gpc)}
                </p>
              </div>
            ))}
          </div>
          {point && !plan.focus && <p className="text-sm text-soft">of “{point.name}”</p>}
        </div>
      </header>
      <ol className={isLong ? "print:columns-2 print:gap-6 print:text-[10pt]" : ""}>
        {plan.parts.map((part, at) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice, and parts keep their order
            key={`${part.kind} ${at}`}
            className={`break-inside-avoid border-b border-line py-2 ${isLong ? "print:py-1" : ""}`}
          >
            <p className="flex items-baseline justify-between gap-3">
              <span className="font-semibold">{kindsOfPart[part.kind].title}</span>
              <span className="text-sm whitespace-nowrap text-soft">{part.minutes} min</span>
            </p>
            <p className="text-[0.92em] text-soft">{part.how}</p>
            {part.each && part.each.length > 0 && (
              <p className={`mt-1 leading-snug ${part.kind === "lastLook" ? "no-print" : ""}`}>
                {part.each.map(({ childId, items }) => (
                  <span key={childId} className="block">
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
            {isSpoken(part.kind) && <p className="mt-1">{part.items.join(", ")}</p>}
            {part.items.length > 0 && !part.each?.length && !isSpoken(part.kind) && (
              <ul
                className={`mt-1 flex flex-wrap ${isSmall(part.kind) ? "gap-1.5" : "gap-x-6 gap-y-1 font-child text-[1.25em]"}`}
              >
                {part.items.map((item) => (
                  <li key={item}>
                    {isSmall(part.kind) ? (
                      <Spelling gpc={item} />
                    ) : (
                      <CardWord text={item} read={hasMarks(part) ? readOf?.(item) : undefined} />
                    )}
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      {looked && <MarkGrid rows={rowsOf(looked, { names, nameOf })} />}
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

/** Spellings that stand large on a card: those that it teaches. */
const shownOn = (plan: PlanBody): readonly string[] => (plan.focus && !teachesNew(plan) ? [] : targetsOf(plan));

function CardWord({ text, read }: { text: string; read: WordVerdict | undefined }) {
  return read ? <BracketWord text={text} units={read.reading.units} unexpected={read.unexpected} /> : text;
}

interface MarkRow {
  readonly name: string;
  readonly items: readonly string[];
}

/** What each child is asked at the end: its own, where it has any. */
function rowsOf(
  { items, each }: PlanBody["parts"][number],
  { names, nameOf }: Pick<CardWanted, "names" | "nameOf">,
): readonly MarkRow[] {
  const own = new Map(each?.map((one) => [nameOf?.(one.childId) ?? "", one.items]));
  return names.map((name) => ({ name, items: own.get(name) ?? items }));
}

/** A box a child and spelling, for paper: tick, dot or what was said. */
function MarkGrid({ rows }: { rows: readonly MarkRow[] }) {
  const most = Math.max(0, ...rows.map(({ items }) => items.length));
  return (
    <table className="only-print mt-2 border-collapse text-[10pt]">
      <caption className="text-left font-normal">✓ right at once, s slow, or what was said</caption>
      <tbody>
        {rows.map(({ name, items }) => (
          <tr key={name}>
            <th className="pr-3 text-left font-normal">{name}</th>
            {Array.from({ length: most }, (_, at) => items[at]).map((gpc, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: boxes stand in their order
              <td key={at} className="h-6 w-20 border border-line px-1 align-top">
                {gpc && <span className="font-child">{showGrapheme(splitGpc(gpc).grapheme)}</span>}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
