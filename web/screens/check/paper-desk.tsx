import { type KeyboardEvent, useRef, useState } from "react";
import type { CheckView } from "#contract";
import { asSheet, choicesOnSheet, kinds } from "#core/checks";
import { type GivenAnswer, heardIn, inCheck, standing } from "#core/ledger";
import { plural } from "#core/saying";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { listedKey, useKeys } from "#web/device/keys.tsx";
import { newId, useMarker } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { toast } from "#web/parts/toast.tsx";
import { type GridRow, type Ringed, readGrid, writeGrid } from "./grid-csv.ts";
import type { OwnDeskWanted } from "./kinds/on-screen.ts";

const kind = kinds.paper;

/** What an answer of a sheet is in the grid. */
function ringedOf(answer: GivenAnswer | undefined, check: CheckView): Ringed | undefined {
  if (!answer) return undefined;
  if (answer.outcome === "none") return "blank";
  if (answer.tags.includes("doubled")) return "doubled";
  const choices = choicesOnSheet(answer.item, asSheet(check.setup));
  const at = choices.findIndex((choice) =>
    answer.outcome === "right" ? choice.from === undefined : choice.text === heardIn(answer),
  );
  return at < 0 ? undefined : at + 1;
}

/** A grid of children by items: one key an answer, and the next place has the cursor. */
export function PaperDesk({ sitting, check, log, progress }: OwnDeskWanted) {
  const [marker] = useMarker();
  const file = useRef<HTMLInputElement>(null);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const cells = useRef(new Map<string, HTMLButtonElement>());
  const [history, setHistory] = useState<readonly { readonly checkId: string; readonly item: string }[]>([]);
  const checks = sitting.checks.filter((one) => one.kind === "paper" && one.items.join() === check.items.join());
  const nameOf = (childId: string) => sitting.children.find((child) => child.id === childId)?.name ?? "";
  const answersOf = new Map(
    checks.map((one) => [
      one.id,
      new Map(standing(log.of(one.id)).map((answer): [string, GivenAnswer] => [answer.item, answer])),
    ]),
  );
  const answerIn = (one: CheckView, item: string) => answersOf.get(one.id)?.get(item);
  const rows: GridRow[] = checks.map((one) => ({
    childId: one.childId,
    name: nameOf(one.childId),
    items: one.items,
    setup: asSheet(one.setup),
  }));

  const mark = (childId: string) => ({
    id: newId(),
    childId,
    markedAt: stampNow(),
    day: todayHere(),
    markedBy: marker.trim() || "Teacher",
  });
  const takeBack = (one: CheckView, item: string) => {
    const before = answerIn(one, item);
    if (before) log.put({ ...mark(one.childId), outcome: "void", voids: before.id });
  };
  const put = (one: CheckView, item: string, ringed: Ringed) => {
    if (ringedOf(answerIn(one, item), one) === ringed) return;
    takeBack(one, item);
    const given = { ...mark(one.childId), ...inCheck("paper", one.id), item, ms: null, pass: 1 };
    if (ringed === "blank") log.put({ ...given, tags: [], outcome: "none" });
    else if (ringed === "doubled")
      log.put({ ...given, tags: ["doubled"], outcome: "wrong", heard: null, units: null });
    else {
      const choice = choicesOnSheet(item, asSheet(one.setup))[ringed - 1];
      if (!choice) return;
      log.put(
        choice.from === undefined
          ? { ...given, tags: [], outcome: "right" }
          : { ...given, tags: [], outcome: "wrong", heard: choice.text, units: null },
      );
    }
    setHistory((before) => [...before, { checkId: one.id, item }]);
  };
  const undo = () => {
    const last = history.at(-1);
    const one = checks.find((entry) => entry.id === last?.checkId);
    if (!last || !one) return;
    takeBack(one, last.item);
    setHistory((before) => before.slice(0, -1));
    cells.current.get(`${one.id} ${last.item}`)?.focus();
  };
  const focus = (row: number, column: number) => {
    const one = checks[row];
    const item = one?.items[column];
    if (one && item !== undefined) cells.current.get(`${one.id} ${item}`)?.focus();
  };
  const onKey = (event: KeyboardEvent, row: number, column: number) => {
    const one = checks[row];
    const item = one?.items[column];
    if (!one || item === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    // A held key moves, but marks no cell after the one that it was pressed for.
    if (event.repeat && !event.key.startsWith("Arrow")) return event.preventDefault();
    const last = one.items.length - 1;
    const on = () => (column < last ? focus(row, column + 1) : focus(row + 1, 0));
    const key = event.key.toLowerCase();
    const moves: Record<string, () => void> = {
      arrowright: on,
      arrowleft: () => (column > 0 ? focus(row, column - 1) : focus(row - 1, last)),
      arrowdown: () => focus(row + 1, column),
      arrowup: () => focus(row - 1, column),
      delete: () => takeBack(one, item),
      backspace: undo,
    };
    const ringed: Ringed | undefined = /^[1-4]$/.test(key)
      ? Number(key)
      : key === "0" || key === "-"
        ? "blank"
        : key === "x"
          ? "doubled"
          : undefined;
    if (ringed !== undefined) {
      put(one, item, ringed);
      on();
    } else if (moves[key]) moves[key]();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    const found = readGrid(await chosen.text(), rows, kind.show);
    for (const { childId, item, ringed } of found.cells) {
      const one = checks.find((entry) => entry.childId === childId);
      if (one) put(one, item, ringed);
    }
    setProblems(found.problems);
    toast(
      `${plural(found.cells.length, "answer")} taken${found.problems.length > 0 ? `, ${plural(found.problems.length, "place")} left out` : ""}.`,
    );
  };
  const end = () => {
    for (const one of checks)
      if (!progress.get(one.id)?.ended)
        log.put({ ...mark(one.childId), source: { kind: "check", checkId: one.id }, outcome: "stop", why: "done" });
  };
  useKeys([
    listedKey("1–4", "What was ringed, counted from the left"),
    listedKey("0", "Nothing was ringed"),
    listedKey("X", "Two were ringed"),
    listedKey("arrows", "Another place"),
    listedKey("Del", "Empty the place"),
    listedKey("Backspace", "Take the last one back"),
  ]);
  const toDo = checks.some((one) => !progress.get(one.id)?.ended);
  return (
    <div className="flex flex-col gap-3">
      <div className="mt-2 flex flex-wrap items-center gap-1.5">
        <ButtonLink to={`/check/${sitting.id}/sheets`}>Print the sheets</ButtonLink>
        <Button onClick={undo} disabled={history.length === 0}>
          Undo
        </Button>
        <Button onClick={() => file.current?.click()}>Read from CSV</Button>
        <Button
          onClick={() =>
            downloadCsv(
              "sheet.csv",
              writeGrid(rows, kind.show, (childId, item) => {
                const one = checks.find((entry) => entry.childId === childId);
                return one && ringedOf(answerIn(one, item), one);
              }),
            )
          }
        >
          Save as CSV
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          aria-label="CSV of ringed answers"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        <ButtonLink to={`/check/${sitting.id}/result`} shape="main" onClick={toDo ? end : undefined}>
          {toDo ? "All answers are in: show the results" : "Show the results"}
        </ButtonLink>
      </div>
      <p className="text-sm text-soft">
        One key an answer: <kbd>1</kbd> to <kbd>4</kbd> as counted from the left on that child's sheet, <kbd>0</kbd>{" "}
        blank, <kbd>X</kbd> two ringed. Arrow keys move, <kbd>Del</kbd> empties, <kbd>Backspace</kbd> takes the last
        one back.
      </p>
      {problems.length > 0 && (
        <ul role="alert" className="rounded-md bg-damson-pale px-4 py-2 text-sm">
          {problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
      <div className="overflow-x-auto">
        <table className="border-collapse bg-sheet">
          <caption className="sr-only">What each child ringed</caption>
          <thead>
            <tr>
              <th scope="col" className="sticky left-0 bg-sheet px-2 py-1 text-left">
                Child
              </th>
              <th scope="col" className="px-2 py-1 text-left text-sm font-normal text-soft">
                Sheet
              </th>
              {check.items.map((item) => (
                <th key={item} scope="col" className="font-child px-1.5 py-1 font-normal">
                  {kind.show(item)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {checks.map((one, row) => (
              <tr key={one.id} className="border-t border-line">
                <th
                  scope="row"
                  className="sticky left-0 whitespace-nowrap bg-sheet px-2 py-1 text-left font-semibold"
                >
                  {nameOf(one.childId)}
                </th>
                <td className="px-2 text-soft">{asSheet(one.setup).version}</td>
                {one.items.map((item, column) => {
                  const answer = answerIn(one, item);
                  const ringed = ringedOf(answer, one);
                  const right = answer?.outcome === "right";
                  const text =
                    ringed === undefined
                      ? ""
                      : typeof ringed === "number"
                        ? `${ringed} ${choicesOnSheet(item, asSheet(one.setup))[ringed - 1]?.text ?? ""}`
                        : ringed === "blank"
                          ? "–"
                          : "two";
                  return (
                    <td key={item} className="p-0.5">
                      <button
                        type="button"
                        ref={(cell) => {
                          if (cell) cells.current.set(`${one.id} ${item}`, cell);
                        }}
                        aria-label={`${nameOf(one.childId)}, ${kind.show(item)}: ${text || "empty"}`}
                        onKeyDown={(event) => onKey(event, row, column)}
                        onClick={() => {
                          const at = typeof ringed === "number" ? ringed : 0;
                          if (ringed === "blank") put(one, item, "doubled");
                          else if (at >= 4) put(one, item, "blank");
                          else put(one, item, at + 1);
                        }}
                        className={`flex h-9 w-full min-w-16 items-center justify-center rounded border px-1 text-sm ${ringed === undefined ? "border-dashed border-line" : right ? "border-leaf-mid bg-leaf-pale" : "border-damson bg-damson-pale"}`}
                      >
                        {text}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
