import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { getSchool, importChildren, listChildren, MOST_IMPORTED } from "#contract";
import type { CheckedRow } from "#core/roster";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { offPage } from "#web/device/off-page.ts";
import { newId } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { Choice, TextArea } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Page, Waiting } from "#web/parts/page.tsx";
import type { RosterRead, RosterWorker } from "#web/workers/roster.worker.ts";

const example = "name\tclass\tnote\nAda M.\tKiln\t\nBen T.\tKiln\tglasses are due";

/** Reads the text in a worker, so that 5,000 rows never stop the typing. */
function useRoster(text: string, fallbackClass: string | undefined, onRead: (read: RosterRead | null) => void): void {
  const school = useAsk(getSchool, {});
  const children = useAsk(listChildren, {});
  const report = useRef(onRead);
  report.current = onRead;
  useEffect(() => {
    if (!school.data || !children.data) return;
    if (text.trim() === "") {
      report.current(null);
      return;
    }
    const classes = school.data.classes.filter((one) => !one.archived);
    const nameOf = new Map(classes.map((one) => [one.id, one.name]));
    const off = offPage<RosterWorker>(
      () => new Worker(new URL("../../workers/roster.worker.ts", import.meta.url), { type: "module" }),
    );
    let stale = false;
    const timer = setTimeout(async () => {
      const wanted = {
        classNames: classes.map((one) => one.name),
        fallbackClass,
        present: (children.data ?? [])
          .filter((child) => !child.archived)
          .map((child) => ({ name: child.name, className: nameOf.get(child.classId) ?? "" })),
      };
      const read = await off
        .ask((worker) => worker.read(text, wanted))
        .catch((error: unknown): RosterRead => ({ rows: [], trouble: wordsOfError(error) }));
      if (!stale) report.current(read);
    }, 120);
    return () => {
      stale = true;
      clearTimeout(timer);
      off.end();
    };
  }, [text, fallbackClass, school.data, children.data]);
}

interface Outcome {
  readonly added: number;
  readonly left: readonly CheckedRow[];
}

/** Paste or choose a class list, see what each row will become, take the good ones. */
export function Screen() {
  const [search] = useSearchParams();
  const school = useAsk(getSchool, {});
  const [text, setText] = useState("");
  const [classId, setClassId] = useState(search.get("class") ?? "");
  const [read, setRead] = useState<RosterRead | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const classes = school.data?.classes.filter((one) => !one.archived) ?? [];
  const fallback = classes.find((one) => one.id === classId)?.name;
  useRoster(outcome ? "" : text, fallback, setRead);

  const good = read?.rows.filter((row) => row.problems.length === 0) ?? [];
  const bad = read?.rows.filter((row) => row.problems.length > 0) ?? [];

  const choose = async (file: File | undefined) => {
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    const utf8 = new TextDecoder("utf-8").decode(bytes);
    setText(utf8.includes("\ufffd") ? new TextDecoder("windows-1252").decode(bytes) : utf8);
    setOutcome(null);
  };

  /** A row keeps its id until it is in, so that pressing again after a slow answer takes no child in twice. */
  const ids = useRef(new Map<string, string>());
  const idFor = (row: CheckedRow): string => {
    const key = JSON.stringify([row.className, row.name, row.note]);
    const id = ids.current.get(key) ?? newId();
    ids.current.set(key, id);
    return id;
  };
  useUnsaved(text.trim() !== "" && !outcome);

  const take = async () => {
    const idOf = new Map(classes.map((one) => [one.name, one.id]));
    const made = good.map((row) => ({
      row,
      child: { id: idFor(row), classId: idOf.get(row.className) ?? "", name: row.name, note: row.note },
    }));
    const left: CheckedRow[] = [...bad];
    let added = 0;
    setTrouble(null);
    try {
      for (let from = 0; from < made.length; from += MOST_IMPORTED) {
        setProgress(from / made.length);
        const part = made.slice(from, from + MOST_IMPORTED);
        const answer = await call(importChildren, { body: { children: part.map(({ child }) => child) } });
        added += answer.added;
        for (const { id, says } of answer.refused) {
          const row = part.find(({ child }) => child.id === id)?.row;
          if (row) left.push({ ...row, problems: [{ column: "name", says }] });
        }
      }
      ids.current.clear();
      setOutcome({ added, left });
      setText("");
    } catch (error) {
      setTrouble(
        `${wordsOfError(error)} ${plural(added, "child is", "children are")} in; press the button again for the rest.`,
      );
    } finally {
      setProgress(null);
      await refreshAll();
    }
  };

  if (!school.data)
    return (
      <Page place="Class list" title="Paste a class list">
        <Waiting />
      </Page>
    );
  return (
    <Page
      place="Class list"
      title="Paste a class list"
      about="Copy the rows from a spreadsheet, or choose a CSV file. Columns: name, class, note. A heading row is understood, in any order."
      actions={<ButtonLink to={classId ? `/class/${classId}` : "/class"}>Back to the class</ButtonLink>}
    >
      {outcome ? (
        <Done outcome={outcome} classId={classId} onMore={() => setOutcome(null)} />
      ) : (
        <>
          <div className="grid gap-3 md:grid-cols-[1fr_15rem]">
            <TextArea
              label="Rows"
              rows={read ? 5 : 9}
              value={text}
              onChange={(event) => setText(event.target.value)}
              placeholder={example}
              spellCheck={false}
              className="font-mono text-sm"
            />
            <div className="flex flex-col gap-3">
              <Choice
                label="Class for rows that name none"
                value={classId}
                onChange={(event) => setClassId(event.target.value)}
              >
                <option value="">None: such rows wait</option>
                {classes.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </Choice>
              <label className="flex flex-col gap-1 text-sm font-semibold">
                Or a CSV file
                <input
                  type="file"
                  accept=".csv,.tsv,.txt,text/csv"
                  onChange={(event) => void choose(event.target.files?.[0])}
                  className="w-full text-sm font-normal file:mr-2 file:rounded-md file:border file:border-line file:bg-sheet file:px-2.5 file:py-1.5 file:text-ink"
                />
              </label>
            </div>
          </div>
          <Fault className="mt-3">{trouble}</Fault>
          <Fault className="mt-3">{read?.trouble}</Fault>
          {read && read.rows.length > 0 && (
            <>
              <div className="my-3 flex flex-wrap items-center gap-3">
                <Button shape="main" disabled={good.length === 0 || progress !== null} onClick={take}>
                  Take {plural(good.length, "child", "children")}
                </Button>
                <p aria-live="polite">
                  {bad.length === 0
                    ? "Every row is good."
                    : `${plural(bad.length, "row needs", "rows need")} a look and will wait; the others go in.`}
                </p>
                {bad.length > 0 && <Button onClick={() => downloadRest(bad)}>Download these with the reasons</Button>}
                {progress !== null && (
                  <progress aria-label="Children taken" value={progress} max={1} className="w-40 accent-leaf" />
                )}
              </div>
              <Preview rows={read.rows} />
            </>
          )}
        </>
      )}
    </Page>
  );
}

function downloadRest(rows: readonly CheckedRow[]): void {
  const table = rows.map((row) => [
    ...[row.cells[0] ?? "", row.cells[1] ?? "", row.cells.slice(2).join(" ")],
    row.problems.map((one) => `${one.column}: ${one.says}`).join("; "),
  ]);
  downloadCsv("rows-to-look-at.csv", [["name", "class", "note", "reason"], ...table]);
}

function Done({ outcome, classId, onMore }: { outcome: Outcome; classId: string; onMore: () => void }) {
  return (
    <div className="rounded-lg border border-line bg-sheet p-5" role="status">
      <p className="text-lg font-semibold">{plural(outcome.added, "child is", "children are")} in.</p>
      {outcome.left.length > 0 && (
        <p className="mt-1">
          {outcome.left.length} rows were left out. Download them, put them right and paste them again.
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <ButtonLink to={classId ? `/class/${classId}` : "/class"} shape="main">
          See the class
        </ButtonLink>
        <ButtonLink to="/check">Check a child</ButtonLink>
        {outcome.left.length > 0 && (
          <Button onClick={() => downloadRest(outcome.left)}>Download what was left out</Button>
        )}
        <Button onClick={onMore}>Paste more</Button>
      </div>
    </div>
  );
}

const ROW = 34;

function Preview({ rows }: { rows: readonly CheckedRow[] }) {
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const columns =
    "grid grid-cols-[4rem_minmax(8rem,1.2fr)_minmax(6rem,0.8fr)_minmax(8rem,1.4fr)_minmax(8rem,1.2fr)] items-center gap-2 px-3";
  return (
    <div
      role="table"
      aria-label="What each row will become"
      aria-rowcount={rows.length + 1}
      className="rounded-lg border border-line bg-sheet"
    >
      <div role="row" className={`${columns} h-9 border-b border-line text-sm font-semibold text-soft`}>
        {["Line", "Name", "Class", "Note", "What happens"].map((head) => (
          <span key={head} role="columnheader">
            {head}
          </span>
        ))}
      </div>
      <div ref={frame} className="max-h-[22rem] overflow-y-auto" tabIndex={0} role="rowgroup">
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index];
            if (!row) return null;
            const at = (column: string) => row.problems.find((one) => one.column === column);
            const cell = (column: string, text: string) => (
              <span
                role="cell"
                className={`truncate ${at(column) ? "rounded border border-damson bg-damson-pale px-1.5" : ""}`}
                title={at(column)?.says}
              >
                {text || (at(column) ? "(empty)" : "")}
              </span>
            );
            return (
              <div
                key={row.line}
                role="row"
                aria-rowindex={item.index + 2}
                className={`${columns} absolute inset-x-0 border-b border-line/50`}
                style={{ top: item.start, height: ROW }}
              >
                <span role="cell" className="text-soft">
                  {row.line}
                </span>
                {cell("name", row.name)}
                {cell("class", row.className)}
                {cell("note", row.note)}
                <span
                  role="cell"
                  className={`truncate ${row.problems.length > 0 ? "text-damson" : "text-soft"}`}
                  title={row.problems.map((one) => one.says).join("; ")}
                >
                  {row.problems.length > 0 ? row.problems.map((one) => one.says).join("; ") : "goes in"}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
