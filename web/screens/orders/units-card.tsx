import { useMemo } from "react";
import { allGpcs, type OrderContent } from "#core/order";
import { type Gpc, isOwnUnit, partsOf, showGrapheme, splitGpc } from "#core/phonics";
import { listed, plural } from "#core/saying";
import { type Lexicon, type Word, wordsOfUnit } from "#core/words";
import { useLexicon } from "#web/device/lexicon.ts";
import { Spelling } from "#web/parts/marks.tsx";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";

/** Words that are named beside a unit. */
const NAMED = 6;

/** Letters that this order teaches as one, with the words in which they are, and those in which they are split otherwise. */
export function UnitsCard({ order, locked }: { order: OrderContent; locked: boolean }) {
  const units = allGpcs(order).filter(isOwnUnit);
  const { ground, error } = useLexicon();
  if (locked && units.length === 0) return null;
  return (
    <Panel className="mt-4" title="Letters taught as one unit">
      <p className="mb-2 text-soft">
        {units.length === 0
          ? "To teach letters as one unit, add them to a step with a plus between their parts: n+k, s+t+r, i+ng, a_e+k."
          : "Each counts as itself and as its parts. Its words can be read by a child who knows it, or who knows every part."}
      </p>
      {units.length > 0 && !ground && (error ? <Trouble error={error} /> : <Waiting rows={units.length} />)}
      {ground && (
        <ul className="grid gap-1">
          {units.map((unit) => (
            <Unit key={unit} unit={unit} lexicon={ground.lexicon} />
          ))}
        </ul>
      )}
    </Panel>
  );
}

function Unit({ unit, lexicon }: { unit: Gpc; lexicon: Lexicon }) {
  const { having, otherwise } = useMemo(() => wordsOfUnit(unit, lexicon), [unit, lexicon]);
  const parts = partsOf(unit).map((part) => showGrapheme(splitGpc(part).grapheme));
  return (
    <li className="grid gap-x-3 sm:grid-cols-[7rem_1fr]">
      <span>
        <Spelling gpc={unit} />
      </span>
      <span>
        {listed(parts)} as one, in {plural(having.length, "word")}
        {having.length > 0 && (
          <>
            : <span className="font-child">{named(having, ({ text }) => text)}</span>
          </>
        )}
        {otherwise.length > 0 && (
          <span className="block text-soft">
            Split otherwise in {plural(otherwise.length, "word")}, where it does not count:{" "}
            <span className="font-child">{named(otherwise, shownSplit)}</span>
          </span>
        )}
      </span>
    </li>
  );
}

const shownSplit = ({ text, units }: Word) =>
  `${text} (${units.map(({ grapheme }) => showGrapheme(grapheme)).join(" ")})`;

const named = (words: readonly Word[], show: (word: Word) => string) =>
  `${words.slice(0, NAMED).map(show).join(", ")}${words.length > NAMED ? " …" : ""}`;
