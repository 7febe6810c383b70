import { type ReactNode, useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { listTexts, type TextView } from "#contract";
import { fitOf, prepareText } from "#core/reading";
import { decodability, keyOf, type TextVerdict, type WordVerdict } from "#core/words";
import { useAsk } from "#web/app/api.ts";
import { useLexicon } from "#web/app/lexicon.ts";
import { focusOf, useFor } from "#web/app/readers.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { MarkedText } from "#web/parts/marked-text.tsx";
import { BracketWord, Spellings } from "#web/parts/marks.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";

type Face = "child" | "marked";

/** One text: as the child reads it, with its brackets, and prepared for these readers. */
export function Screen() {
  const { textId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const texts = useAsk(listTexts, {}, { revalidateOnFocus: false });
  const { ground, error: noWords } = useLexicon();
  const { reader, error: noReader } = useFor(forKey);
  const [face, setFace] = useState<Face>("child");
  const [size, setSize] = useState(24);
  const text = texts.data?.find((one) => one.id === textId);
  const told = useMemo(() => {
    if (!text || !ground || !reader) return undefined;
    const wanted = {
      lexicon: ground.lexicon,
      accent: ground.accent,
      wholes: new Set([...reader.wholes, ...text.exceptions.map(keyOf)]),
    };
    const targets = focusOf(reader);
    return {
      fit: fitOf(prepareText(text, ground), { known: reader.known, wholes: reader.wholes, targets }),
      // Known before the text and not being taught: what is to be practised is in the way until then.
      verdict: decodability(text.body, reader.known, new Set(), wanted),
    };
  }, [text, ground, reader]);
  const trouble = texts.error ?? noWords ?? noReader;
  if (trouble && !told)
    return (
      <Page place="Text" title="Text">
        <Trouble error={trouble} />
      </Page>
    );
  if (texts.data && !text)
    return (
      <Page place="Text" title="There is no such text">
        <ButtonLink to="/texts" shape="main">
          Go to Texts
        </ButtonLink>
      </Page>
    );
  if (!text || !told)
    return (
      <Page place="Text" title="Text">
        <Waiting rows={8} />
      </Page>
    );
  const toggle = "min-h-9 rounded-full border px-3.5";
  return (
    <Page
      place="Text"
      title={text.title}
      about={`Step ${text.step.slice(1)}, ${told.fit.words} words. ${reader?.key === "all" ? "" : told.fit.why}`}
      actions={
        <>
          <ForChoice value={forKey} onChange={(key) => setSearch({ for: key }, { replace: true })} />
          {reader?.key.startsWith("child:") && (
            <ButtonLink to={`/texts/${text.id}/read?child=${reader.key.slice("child:".length)}`} shape="main">
              Listen to {reader.name} read it
            </ButtonLink>
          )}
          <Button onClick={() => window.print()}>Print</Button>
        </>
      }
    >
      <div className="grid items-start gap-4 lg:grid-cols-[3fr_2fr] print:block">
        <section
          aria-label="The text"
          className="rounded-lg border border-line bg-sheet px-6 py-4 print:border-0 print:p-0"
        >
          <div className="no-print mb-3 flex flex-wrap items-center gap-2">
            {(["child", "marked"] as const).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={face === one}
                onClick={() => setFace(one)}
                className={`${toggle} ${face === one ? "border-leaf bg-leaf-pale font-semibold" : "border-line"}`}
              >
                {one === "child" ? "As the child reads it" : "With brackets"}
              </button>
            ))}
            <label className="ml-auto flex items-center gap-2 text-sm text-soft">
              Size
              <input
                type="range"
                min={16}
                max={44}
                step={2}
                value={size}
                onChange={(event) => setSize(Number(event.target.value))}
                className="accent-leaf"
              />
            </label>
          </div>
          <h2 className="font-child mb-2" style={{ fontSize: size * 1.2 }}>
            {text.title}
          </h2>
          {face === "child" ? (
            <div className="font-child" style={{ fontSize: size, lineHeight: 1.7 }}>
              {text.body.split("\n\n").map((paragraph) => (
                <p key={paragraph} className="mb-[0.7em]">
                  {paragraph}
                </p>
              ))}
            </div>
          ) : (
            <MarkedText text={text.body} verdict={told.verdict} />
          )}
        </section>
        <div className="no-print flex flex-col gap-4">
          <Preparation text={text} verdict={told.verdict} targets={reader ? [...focusOf(reader)] : []} />
          <Panel title="Questions">
            <ol className="flex list-decimal flex-col gap-2 pl-5">
              {text.questions.map(({ ask, answers, depth, where }) => (
                <li key={ask}>
                  <p>{ask}</p>
                  <p className="text-sm text-soft">
                    {answers.join(" · ")}.{" "}
                    {depth === "found" ? "It stands in the text:" : "Between the lines; look at:"}{" "}
                    <span className="font-child">“{where}”</span>
                  </p>
                </li>
              ))}
            </ol>
          </Panel>
        </div>
      </div>
    </Page>
  );
}

/** What to look at before these readers begin: spellings, words with their brackets, long words, meanings. */
function Preparation({
  text,
  verdict,
  targets,
}: {
  text: TextView;
  verdict: TextVerdict;
  targets: readonly string[];
}) {
  const has = (gpc: string) => verdict.words.some((word) => word.reading.units.some((unit) => unit.gpc === gpc));
  const focus = targets.filter(has).slice(0, 6);
  const practises = (word: WordVerdict) => word.reading.units.some((unit) => targets.includes(unit.gpc));
  const first = [
    ...new Map(
      verdict.words
        .filter((word) => word.verdict === "not yet" || (word.text.length > 2 && practises(word)))
        .sort((one, other) => (one.verdict === other.verdict ? 0 : one.verdict === "not yet" ? -1 : 1))
        .map((word) => [keyOf(word.text), word]),
    ).values(),
  ].slice(0, 10);
  const long = verdict.longWords.filter((word) => word.reading.syllables.length > 1).slice(0, 8);
  return (
    <Panel title="Before reading">
      <dl className="flex flex-col gap-2">
        {focus.length > 0 && (
          <Row title="Spellings in focus">
            <Spellings gpcs={focus} />
          </Row>
        )}
        {first.length > 0 && (
          <Row title="Read these first">
            <span className="flex flex-wrap gap-x-4 text-xl">
              {first.map((word) => (
                <BracketWord key={word.at} text={word.text} units={word.reading.units} unexpected={word.unexpected} />
              ))}
            </span>
          </Row>
        )}
        {verdict.exceptionWords.length > 0 && (
          <Row title="Exception words">
            <span className="font-child">{verdict.exceptionWords.join(", ")}</span>
          </Row>
        )}
        {long.length > 0 && (
          <Row title="Longer words">
            <span className="font-child">{long.map((word) => word.reading.syllables.join("·")).join(", ")}</span>
          </Row>
        )}
        {text.words.length > 0 && (
          <Row title="Meanings">
            {text.words.map(({ word, means }) => (
              <p key={word}>
                <span className="font-child">{word}</span>: {means}
              </p>
            ))}
          </Row>
        )}
      </dl>
    </Panel>
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
