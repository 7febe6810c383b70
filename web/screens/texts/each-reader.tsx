import { useMemo } from "react";
import type { TextView } from "#contract";
import { fitLimits } from "#core/reading";
import type { SchoolWords } from "#web/device/lexicon.ts";
import type { For } from "#web/device/readers.ts";
import { Spellings } from "#web/parts/marks.tsx";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";
import { groundSent, textsOffPage, useWorked } from "./laying.ts";

/** How the text fits each child of a class or a group, by name. */
export function EachReader({ text, reader, ground }: { text: TextView; reader: For; ground: SchoolWords }) {
  const { children } = reader;
  const ask = useMemo(() => {
    const readers = children.map(({ known, wholes }) => ({
      known,
      wholes: wholes.map((word) => word.toLowerCase()),
      targets: [],
    }));
    return () => textsOffPage.ask((worker) => worker.fits(groundSent(ground), text, readers));
  }, [text, children, ground]);
  const { value: fits, error } = useWorked(ask);
  if (children.length === 0) return null;
  if (!fits)
    return (
      <Panel title="Each child">
        {error ? <Trouble error={error} /> : <Waiting rows={Math.min(8, children.length)} />}
      </Panel>
    );
  const rows = children.flatMap((child, at) => {
    const fit = fits[at];
    return fit ? [{ child, fit }] : [];
  });
  const alone = rows.filter(({ fit }) => fit.share >= fitLimits.alone).length;
  return (
    <Panel title="Each child">
      <p className="mb-1">
        {alone} of {rows.length} can read it alone.
      </p>
      <Table
        label="Each child"
        height="max-h-72"
        rows={rows}
        rowKey={({ child }) => child.id}
        columns={[
          {
            title: "Child",
            names: true,
            className: "whitespace-nowrap",
            sortBy: ({ child }) => child.name,
            show: ({ child }) => child.name,
          },
          {
            title: "Reads",
            figures: true,
            sortBy: ({ fit }) => fit.share,
            show: ({ fit }) => `${Math.floor(fit.share * 100)}%`,
          },
          {
            title: "In the way",
            show: ({ fit }) => <Spellings gpcs={fit.inTheWay.slice(0, 3).map((one) => one.gpc)} />,
          },
        ]}
      />
    </Panel>
  );
}
