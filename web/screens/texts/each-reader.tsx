import { useMemo } from "react";
import type { TextView } from "#contract";
import { fitLimits, fitOf } from "#core/reading";
import type { WordGround } from "#web/app/lexicon.ts";
import type { For } from "#web/app/readers.ts";
import { Spellings } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";
import { preparedOf } from "./shelf.ts";

/** How the text fits each child of a class or a group, the one with most in the way first. */
export function EachReader({ text, reader, ground }: { text: TextView; reader: For; ground: WordGround }) {
  const rows = useMemo(() => {
    const once = preparedOf(text, ground);
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
        <Table
          rows={rows}
          rowKey={({ child }) => child.id}
          columns={[
            { title: "Child", names: true, className: "whitespace-nowrap", show: ({ child }) => child.name },
            { title: "Reads", figures: true, show: ({ fit }) => `${Math.floor(fit.share * 100)}%` },
            {
              title: "In the way",
              show: ({ fit }) => <Spellings gpcs={fit.inTheWay.slice(0, 3).map((one) => one.gpc)} />,
            },
          ]}
        />
      </section>
    </Panel>
  );
}
