import type { ReactNode } from "react";

export interface Column<Row> {
  readonly title: string;
  readonly show: (row: Row) => ReactNode;
  /** It names its row: one column does. */
  readonly names?: boolean | undefined;
  /** Figures stand at the right, so that they align. */
  readonly figures?: boolean | undefined;
  /** What the title means, when it is pointed at. */
  readonly hint?: string | undefined;
  readonly className?: string | undefined;
}

interface TableWanted<Row> {
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly rowKey: (row: Row) => string | number;
  /** What the table is, for those who listen. */
  readonly caption?: string | undefined;
  /** `sheet` stands on its own, with air at its sides; `panel` fills the panel that it is in. */
  readonly room?: "panel" | "sheet";
  readonly className?: string;
}

/** A table for reading: figures align, the head stays when it scrolls in its frame. */
export function Table<Row>({
  columns,
  rows,
  rowKey,
  caption,
  room = "panel",
  className = "w-full",
}: TableWanted<Row>) {
  const at = (column: Column<Row>, last: boolean) =>
    `${room === "sheet" ? "px-3" : last ? "" : "pr-4"} ${column.figures ? "text-right" : "text-left"} ${column.className ?? ""}`;
  const isLast = (index: number) => index === columns.length - 1;
  return (
    <table className={`border-collapse ${className}`}>
      {caption && <caption className="sr-only">{caption}</caption>}
      <thead>
        <tr className="sticky top-0 bg-sheet text-sm text-soft">
          {columns.map((column, index) => (
            <th
              key={column.title}
              scope="col"
              title={column.hint}
              className={`${room === "sheet" ? "py-2" : "pb-0.5"} font-semibold ${at(column, isLast(index))}`}
            >
              {column.title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={rowKey(row)} className="border-t border-line/60 align-baseline">
            {columns.map((column, index) => {
              const look = `${room === "sheet" ? "py-1.5" : "py-0.5"} ${at(column, isLast(index))}`;
              return column.names ? (
                <th key={column.title} scope="row" className={`font-normal ${look}`}>
                  {column.show(row)}
                </th>
              ) : (
                <td key={column.title} className={look}>
                  {column.show(row)}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
