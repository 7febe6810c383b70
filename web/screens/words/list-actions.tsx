import { Copy, Download, Printer } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "#web/parts/button.tsx";
import { download } from "#web/parts/download.ts";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { toast } from "#web/parts/toast.tsx";

interface ActionsWanted {
  /** What the list is; the file takes its name from it. */
  readonly title: string;
  /** What is copied, one a line. */
  readonly lines: readonly string[];
  /** One row a line of the CSV file, its columns by name. */
  readonly rows: readonly Readonly<Record<string, string | number>>[];
  /** What the JSON file has beside the title. */
  readonly json: Readonly<Record<string, unknown>>;
  readonly onPrint?: (() => void) | undefined;
  readonly children?: ReactNode;
}

/** What every list can do: be copied, printed, and saved as CSV and JSON. */
export function ListActions({ title, lines, rows, json, onPrint, children }: ActionsWanted) {
  const none = lines.length === 0;
  const name = title
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase();
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(lines.join("\n"));
      toast("Copied, one a line.");
    } catch {
      toast.error("The browser does not let this page copy. Save the list as CSV instead.");
    }
  };
  return (
    <>
      <Button disabled={none} onClick={() => void copy()}>
        <Copy size={15} aria-hidden /> Copy
      </Button>
      {onPrint && (
        <Button disabled={none} onClick={onPrint}>
          <Printer size={15} aria-hidden /> Print
        </Button>
      )}
      {children}
      <Button disabled={none} onClick={() => downloadCsv(`${name}.csv`, rows)}>
        <Download size={15} aria-hidden /> CSV
      </Button>
      <Button
        disabled={none}
        onClick={() =>
          download(`${name}.json`, "application/json", `${JSON.stringify({ title, ...json }, null, 2)}\n`)
        }
      >
        <Download size={15} aria-hidden /> JSON
      </Button>
    </>
  );
}
