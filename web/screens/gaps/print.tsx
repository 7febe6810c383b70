import { shortDay } from "#core/saying";
import { todayHere } from "#web/device/clock.ts";
import { Legend, leafClass, leafStyle } from "#web/parts/marks.tsx";
import { usePrinting } from "#web/parts/printing.ts";
import { columnName, type GapView } from "./view.ts";

const COLUMNS = 42;
const ROWS = 30;

/** The map on A4 landscape, cut into pages of whole rows and columns with their heads. */
export function PrintMap({ view, title, day }: { view: GapView; title: string; day: string }) {
  if (!usePrinting()) return null;
  const pages = [];
  for (let row = 0; row < view.rows.length; row += ROWS) {
    for (let column = 0; column < view.columns.length; column += COLUMNS) pages.push({ row, column });
  }
  return (
    <div className="only-print">
      <style>{"@page { size: A4 landscape; margin: 9mm; }"}</style>
      {pages.map(({ row, column }, at) => {
        const columns = view.columns.slice(column, column + COLUMNS);
        return (
          <section key={`${row} ${column}`} className={at > 0 ? "break-before-page" : ""}>
            <div className="mb-2 flex items-baseline justify-between">
              <p className="text-[12pt] font-semibold">
                {title}, {shortDay(day, todayHere())}
                {pages.length > 1 && `, page ${at + 1} of ${pages.length}`}
              </p>
              <Legend />
            </div>
            <table className="border-collapse text-[8pt] leading-none">
              <thead>
                <tr>
                  <th className="min-w-24 border-b border-line text-left align-bottom">Child</th>
                  {columns.map(({ gpc }) => {
                    const { top, below } = columnName(gpc);
                    return (
                      <th
                        key={gpc}
                        className="w-[5.6mm] border-b border-line px-0 pb-0.5 text-center align-bottom font-normal"
                      >
                        <span className="block font-child text-[8pt]">{top}</span>
                        <span className="block text-[8pt]">{below}</span>
                      </th>
                    );
                  })}
                  <th className="border-b border-line pl-1 align-bottom">gaps</th>
                </tr>
              </thead>
              <tbody>
                {view.rows.slice(row, row + ROWS).map((entry) => (
                  <tr key={entry.id} className="h-[5mm]">
                    <th className="border-b border-line/60 text-left font-normal whitespace-nowrap">{entry.name}</th>
                    {columns.map(({ gpc }, index) => (
                      <td key={gpc} className="border-b border-l border-line/60 text-center">
                        <span
                          className={leafClass(entry.states[column + index] ?? "not taught")}
                          style={{ ...leafStyle(entry.chances[column + index] ?? 0), width: "3mm", height: "3mm" }}
                        />
                      </td>
                    ))}
                    <td className="border-b border-line/60 pl-1 text-right">{entry.gaps}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        );
      })}
    </div>
  );
}
