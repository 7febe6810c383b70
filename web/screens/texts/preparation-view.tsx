import type { ReactNode } from "react";
import type { PreparationBody } from "#contract";
import { split } from "#core/words";
import { useLexicon } from "#web/device/lexicon.ts";
import { BracketWord, Spellings } from "#web/parts/marks.tsx";

/** What to look at with these readers before they begin. */
export function PreparationView({ preparation }: { preparation: PreparationBody }) {
  const { focus, first, longer, wholes, meanings, watch, note } = preparation;
  return (
    <dl className="flex flex-col gap-2.5">
      {focus.length > 0 && (
        <Row title="Spellings in focus">
          <Spellings gpcs={focus} />
        </Row>
      )}
      {first.length > 0 && (
        <Row title="Read these first">
          <span className="flex flex-wrap gap-x-4 text-xl">
            {first.map((word) => (
              <Bracketed key={word} word={word} />
            ))}
          </span>
        </Row>
      )}
      {longer.length > 0 && (
        <Row title="Longer words">
          <span className="flex flex-wrap gap-x-4">
            {longer.map((word) => (
              <Parted key={word} word={word} />
            ))}
          </span>
        </Row>
      )}
      {wholes.length > 0 && (
        <Row title="Exception words">
          <span className="font-child">{wholes.join(", ")}</span>
        </Row>
      )}
      {meanings.length > 0 && (
        <Row title="Meanings">
          {meanings.map(({ word, means }) => (
            <p key={word}>
              <span className="font-child">{word}</span>: {means}
            </p>
          ))}
        </Row>
      )}
      {watch.length > 0 && (
        <Row title="Watch in the punctuation">
          {watch.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </Row>
      )}
      {note && <Row title="Note">{note}</Row>}
    </dl>
  );
}

function Row({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div>
      <dt className="text-sm font-semibold">{title}</dt>
      <dd>{children}</dd>
    </div>
  );
}

/** A word with the bracket under each of its sounds. */
function Bracketed({ word }: { word: string }) {
  const { ground } = useLexicon();
  const reading = ground && split(word, { lexicon: ground.lexicon, accent: ground.accent })[0];
  return reading ? <BracketWord text={word} units={reading.units} /> : <span className="font-child">{word}</span>;
}

/** A longer word by its syllables, and by base and ending where it has one. */
function Parted({ word }: { word: string }) {
  const { ground } = useLexicon();
  const reading = ground && split(word, { lexicon: ground.lexicon, accent: ground.accent })[0];
  if (!reading) return <span className="font-child">{word}</span>;
  const { beginnings, base, endings } = reading.morphemes;
  const parts = [
    ...beginnings.map((one) => `${one}-`),
    base,
    ...endings.map((one) => (one.startsWith("'") ? one : `-${one}`)),
  ];
  return (
    <span className="font-child">
      {reading.syllables.join("·")}
      {parts.length > 1 && <span className="font-sans text-sm text-soft"> ({parts.join(" ")})</span>}
    </span>
  );
}
