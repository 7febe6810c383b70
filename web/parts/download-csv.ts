import type { csvOf } from "./csv.ts";
import { download } from "./download.ts";

/** Hands the browser rows to keep as a CSV file. What writes CSV comes when it is first asked for. */
export async function downloadCsv(name: string, rows: Parameters<typeof csvOf>[0]): Promise<void> {
  const { csvOf: write } = await import("./csv.ts");
  download(name, "text/csv;charset=utf-8", write(rows));
}
