import { useMemo } from "react";
import { getSchool } from "#contract";
import { climbOf, fitOf, prepareText, stepOfText } from "#core/reading";
import { plural } from "#core/saying";
import { decodability, keyOf, markedWords } from "#core/words";
import { useAsk } from "#web/device/api.ts";
import { useLexicon } from "#web/device/lexicon.ts";
import { focusOf, useFor } from "#web/device/readers.ts";
import { MarkedText } from "#web/parts/marked-text.tsx";
import { Panel, Waiting } from "#web/parts/page.tsx";
import type { TextForm } from "./text-form.ts";

interface CheckWanted {
  readonly form: TextForm;
  readonly forKey: string;
  /** A word is to be read as a whole in this text, or is not any more. */
  readonly onWhole: (word: string, whole: boolean) => void;
}

/** A text while it is written, as these readers find it: what fits, what is in the way, from which step on it can be read. */
export function TextCheck({ form, forKey, onWhole }: CheckWanted) {
  const { ground } = useLexicon();
  const { reader } = useFor(forKey);
  const school = useAsk(getSchool, {});
  const order = school.data?.orders[0];
  const climb = useMemo(() => order && climbOf(order.content.steps), [order]);
  const told = useMemo(() => {
    if (!ground || !reader) return undefined;
    const once = prepareText(form, ground);
    const targets = focusOf(reader);
    return {
      step: climb && stepOfText(once, climb),
      fit: fitOf(once, { known: reader.known, wholes: reader.wholes, targets }),
      verdict: decodability(form.body, reader.known, new Set(), {
        lexicon: ground.lexicon,
        accent: ground.accent,
        wholes: new Set([...reader.wholes, ...form.exceptions.map(keyOf)]),
      }),
    };
  }, [form, ground, reader, climb]);
  if (!told)
    return (
      <Panel title="As these readers find it">
        <Waiting rows={4} />
      </Panel>
    );
  const notYet = [
    ...new Set(told.verdict.words.filter((one) => one.verdict === "not yet").map((one) => keyOf(one.text))),
  ];
  const guessed = [
    ...new Set(
      told.verdict.words
        .filter((one) => one.source === "rules" && one.verdict !== "sign")
        .map((one) => keyOf(one.text)),
    ),
  ];
  return (
    <div className="lg:sticky lg:top-4">
      <Panel title={reader?.key === "all" ? "This text in its sounds" : `For ${reader?.name}`}>
        {form.body.trim() === "" ? (
          <p className="text-soft">Here the text stands with its brackets, as soon as there is one.</p>
        ) : (
          <div className="flex flex-col gap-3">
            <p>
              {reader?.key !== "all" && <b className="text-xl">{Math.floor(told.fit.share * 100)}%. </b>}
              {plural(told.fit.words, "word")}.{" "}
              {told.step
                ? `Every word can be read from step ${told.step} of ${order?.content.name} on.`
                : `Some word can never be read by ${order?.content.name} alone.`}{" "}
              {reader?.key !== "all" && told.fit.why}
            </p>
            <div
              className="max-h-[26rem] overflow-y-auto"
              tabIndex={0}
              role="region"
              aria-label="The text in its sounds"
            >
              <MarkedText text={form.body} words={markedWords(told.verdict)} />
            </div>
            <Words
              title="Not yet; press one that is to be read as a whole here"
              words={notYet}
              onPress={(word) => onWhole(word, true)}
            />
            <Words
              title="Read as wholes here; press one to take it back"
              words={form.exceptions}
              onPress={(word) => onWhole(word, false)}
            />
            {guessed.length > 0 && (
              <p className="text-sm text-soft">
                Not in the word list, split by rule, worth a look:{" "}
                <span className="font-child">{guessed.slice(0, 12).join(", ")}</span>
              </p>
            )}
          </div>
        )}
      </Panel>
    </div>
  );
}

function Words({
  title,
  words,
  onPress,
}: {
  title: string;
  words: readonly string[];
  onPress: (word: string) => void;
}) {
  if (words.length === 0) return null;
  return (
    <div>
      <p className="text-sm font-semibold">{title}</p>
      <ul className="mt-1 flex flex-wrap gap-1.5">
        {words.slice(0, 40).map((word) => (
          <li key={word}>
            <button
              type="button"
              onClick={() => onPress(word)}
              className="font-child min-h-9 rounded-full border border-line px-3 hover:border-soft"
            >
              {word}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
