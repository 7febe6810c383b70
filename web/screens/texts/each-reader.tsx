import { useMemo } from "react";
import type { TextView } from "#contract";
import { fitLimits, fitOf, prepareText } from "#core/reading";
import type { WordGround } from "#web/app/lexicon.ts";
import type { For } from "#web/app/readers.ts";
import { Spelling } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";

/** How the text fits each child of a class or a group, the one with most in the way first. */
export function EachReader({ text, reader, ground }: { text: TextView; reader: For; ground: WordGround }) {
  const rows = useMemo(() => {
    const once = prepareText(text, ground);
    return reader.children
      .map((child) => {
        const wholes = new Set(child.wholes.map((word) => word.toLowerCase()));
        return { child, fit: fitOf(once, { known: new Set(child.known), wholes }) };
      })
      .sort((one, other) => one.fit.share - other.fit.share);
  }, [text, reader, ground]);
  if (rows.length === 0) return null;
  const alone = rows.filter(({ fit }) => fit.share >= fitLimits.alone).length;
  return (
    <Panel title="Each child">
      <p className="mb-1">
        {alone} of {rows.length} can read it alone.
      </p>
      <section tabIndex={0} aria-label="Each child" className="max-h-72 overflow-y-auto">
        <table className="w-full border-collapse text-left">
          <thead>
            <tr className="sticky top-0 bg-sheet text-sm text-soft">
              <th scope="col" className="font-semibold">
                Child
              </th>
              <th scope="col" className="pr-3 text-right font-semibold">
                Reads
              </th>
              <th scope="col" className="font-semibold">
                In the way
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ child, fit }) => (
              <tr key={child.id} className="border-t border-line/60">
                <th scope="row" className="whitespace-nowrap py-1 pr-3 font-normal">
                  {child.name}
                </th>
                <td className="py-1 pr-3 text-right">{Math.floor(fit.share * 100)}%</td>
                <td className="py-1">
                  <span className="flex flex-wrap gap-1">
                    {fit.inTheWay.slice(0, 3).map(({ gpc }) => (
                      <Spelling key={gpc} gpc={gpc} />
                    ))}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </Panel>
  );
}
