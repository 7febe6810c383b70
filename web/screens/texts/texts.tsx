import { useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { listTexts } from "#contract";
import { byFit, fitLimits, fitOf, prepareText, type TextFit } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { useLexicon } from "#web/app/lexicon.ts";
import { focusOf, useFor } from "#web/app/readers.ts";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";

/** The shelf of texts, those that fit these readers first, with the reason. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const texts = useAsk(listTexts, {}, { revalidateOnFocus: false });
  const { ground, error: noWords } = useLexicon();
  const { reader, error: noReader } = useFor(forKey);
  const prepared = useMemo(
    () => ground && texts.data?.map((text) => ({ text, once: prepareText(text, ground) })),
    [texts.data, ground],
  );
  const shelf = useMemo(() => {
    if (!prepared || !reader) return undefined;
    const { known, wholes } = reader;
    const fitted = prepared.map(({ text, once }) => ({
      text,
      stepNumber: Number(text.step.slice(1)),
      fit: fitOf(once, { known, wholes, targets: focusOf(reader) }),
    }));
    return reader.key === "all" ? fitted : byFit(fitted);
  }, [prepared, reader]);
  const trouble = texts.error ?? noWords ?? noReader;
  return (
    <Page
      place="Texts"
      title="Texts"
      about="Decodable texts about the lock, those that fit these readers first."
      actions={<ForChoice value={forKey} onChange={(key) => setSearch({ for: key }, { replace: true })} />}
    >
      {trouble && !shelf && <Trouble error={trouble} />}
      {!shelf && !trouble && <Waiting rows={10} />}
      {shelf && (
        <section tabIndex={0} aria-label="Texts" className="overflow-x-auto rounded-lg border border-line bg-sheet">
          <table className="w-full border-collapse text-left">
            <thead>
              <tr className="border-b border-line text-sm text-soft">
                <th scope="col" className="px-3 py-2 font-semibold">
                  Text
                </th>
                <th scope="col" className="px-3 py-2 text-right font-semibold">
                  Step
                </th>
                <th scope="col" className="px-3 py-2 text-right font-semibold">
                  Words
                </th>
                <th scope="col" className="px-3 py-2 text-right font-semibold">
                  Reads
                </th>
                <th scope="col" className="px-3 py-2 font-semibold">
                  Why
                </th>
              </tr>
            </thead>
            <tbody>
              {shelf.map(({ text, stepNumber, fit }) => (
                <tr key={text.id} className="border-b border-line/60 align-baseline">
                  <th scope="row" className="whitespace-nowrap px-3 py-1.5 font-normal">
                    <Link
                      to={`/texts/${text.id}${forKey === "all" ? "" : `?for=${forKey}`}`}
                      className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                    >
                      {text.title}
                    </Link>
                  </th>
                  <td className="px-3 py-1.5 text-right">{stepNumber}</td>
                  <td className="px-3 py-1.5 text-right">{fit.words}</td>
                  <td className={`px-3 py-1.5 text-right ${fit.share >= fitLimits.alone ? "font-semibold" : ""}`}>
                    {Math.floor(fit.share * 100)}%
                  </td>
                  <td className="px-3 py-1.5">
                    <span className="font-semibold">{reader?.key === "all" ? "" : nameOf(fit)}</span> {fit.why}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </Page>
  );
}

function nameOf({ share }: TextFit): string {
  return share >= fitLimits.alone ? "To read alone." : share >= fitLimits.helped ? "With help." : "Not yet.";
}
