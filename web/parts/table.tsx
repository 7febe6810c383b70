import { ChevronDown, ChevronUp } from "lucide-react";
import { type ReactNode, useState } from "react";

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
  /** The title is there for those who listen, not shown. */
  readonly unseen?: boolean | undefined;
  /** What its rows are ordered by when its head is pressed; null stands last either way. Without it they are not. */
  readonly sortBy?: ((row: Row) => string | number | null) | undefined;
}

interface Order {
  readonly title: string;
  readonly down: boolean;
}

/** The rows in this order; equal ones, and all without one, stay as they came. */
export function inOrder<Row>(
  rows: readonly Row[],
  { sortBy }: Pick<Column<Row>, "sortBy">,
  down: boolean,
): readonly Row[] {
  if (!sortBy) return rows;
  const compare = (one: string | number, other: string | number) =>
    typeof one === "number" && typeof other === "number"
      ? one - other
      : String(one).localeCompare(String(other), "en", { numeric: true, sensitivity: "base" });
  return rows
    .map((row) => ({ row, by: sortBy(row) }))
    .sort(({ by: one }, { by: other }) => {
      if (one === null || other === null) return Number(one === null) - Number(other === null);
      return compare(one, other) * (down ? -1 : 1);
    })
    .map(({ row }) => row);
}

interface TableWanted<Row> {
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly rowKey: (row: Row) => string | number;
  /** What the table is, for those who listen. */
  readonly label: string;
  /** `sheet` stands on its own, with air at its sides; `panel` fills the panel that it is in. */
  readonly room?: "panel" | "sheet";
  /** How high its frame may get before it scrolls, as a class; as high as it needs without one. */
  readonly height?: string | undefined;
  readonly className?: string;
}

/**
 * A table for reading, in a frame that it scrolls in where it is wider than its place: figures align, the head stays. A head that can be pressed orders the
 * rows by it, pressed again the other way round, and a third time they stand as they came.
 */
export function Table<Row>({
  columns,
  rows,
  rowKey,
  label,
  room = "panel",
  height = "",
  className = "w-full",
}: TableWanted<Row>) {
  const at = (column: Column<Row>, last: boolean) =>
    `${room === "sheet" ? "px-3" : last ? "" : "pr-4"} ${column.figures ? "text-right" : "text-left"} ${column.className ?? ""}`;
  const [order, setOrder] = useState<Order | null>(null);
  const ordering = columns.find((column) => column.title === order?.title && column.sortBy);
  const shown = ordering && order ? inOrder(rows, ordering, order.down) : rows;
  const press = (title: string) =>
    setOrder(order?.title !== title ? { title, down: false } : order.down ? null : { title, down: true });
  const isLast = (index: number) => index === columns.length - 1;
  return (
    <section
      tabIndex={0}
      aria-label={label}
      className={`overflow-auto ${room === "sheet" ? "rounded-lg border border-line bg-sheet" : ""} ${height}`}
    >
      <table className={`border-collapse ${className}`}>
        <thead>
          <tr className="sticky top-0 bg-sheet text-sm text-soft">
            {columns.map((column, index) => (
              <th
                key={column.title}
                scope="col"
                title={column.hint}
                aria-sort={column === ordering ? (order?.down ? "descending" : "ascending") : undefined}
                className={`${room === "sheet" ? "py-2" : "pb-0.5"} font-semibold ${at(column, isLast(index))}`}
              >
                {column.sortBy ? (
                  <button
                    type="button"
                    // The sign stands where the figures do not, so that head and figures end at the same edge.
                    className={`prints inline-flex min-h-6 items-center font-semibold whitespace-nowrap hover:text-ink ${column.figures ? "flex-row-reverse" : ""}`}
                    onClick={() => press(column.title)}
                  >
                    {column.title}
                    <span className="no-print inline-block w-3.5" aria-hidden>
                      {column === ordering && (order?.down ? <ChevronDown size={14} /> : <ChevronUp size={14} />)}
                    </span>
                  </button>
                ) : column.unseen ? (
                  <span className="sr-only">{column.title}</span>
                ) : (
                  column.title
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((row) => (
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
    </section>
  );
}
