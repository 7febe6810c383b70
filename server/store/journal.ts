import {
  closeSync,
  fdatasync,
  fdatasyncSync,
  fstatSync,
  ftruncateSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeSync,
} from "node:fs";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import { syncFolder } from "./disk.ts";

/** A write of the database as it was done: its statements in order, each with its parameters. */
export interface Entry {
  /** Counted from 1 without a gap. */
  readonly number: number;
  readonly statements: readonly (readonly [text: string, params: readonly unknown[]])[];
}

/** What stands in a file of the journal. */
interface ReadFile {
  readonly entries: readonly Entry[];
  /** Bytes of the whole entries: what follows was not written to its end. */
  readonly whole: number;
}

const nameOf = (first: number) => `journal-${String(first).padStart(12, "0")}.log`;
const pattern = /^journal-(\d{12})\.log$/;

/** Files of the journal in a folder, the first one first. */
function filesIn(folder: string): { readonly path: string; readonly first: number }[] {
  return readdirSync(folder)
    .flatMap((name) => {
      const first = pattern.exec(name)?.[1];
      return first === undefined ? [] : [{ path: join(folder, name), first: Number(first) }];
    })
    .sort((one, other) => one.first - other.first);
}

function lineOf(entry: Entry): Buffer {
  const text = JSON.stringify([entry.number, entry.statements]);
  return Buffer.from(`${crc32(text).toString(16).padStart(8, "0")} ${text}\n`);
}

/** The journal is damaged in the middle: what follows the damage cannot be trusted. */
export class DamagedJournal extends Error {
  constructor(readonly path: string) {
    super(`The journal ${path} is damaged`);
    this.name = "DamagedJournal";
  }
}

/** The entry of a line, or undefined when it is not as it was written. */
function entryOf(line: string): Entry | undefined {
  const text = line.slice(9);
  if (crc32(text).toString(16).padStart(8, "0") !== line.slice(0, 8)) return undefined;
  const [number, statements] = JSON.parse(text) as [number, Entry["statements"]];
  return { number, statements };
}

/**
 * Reads a file up to the first line that is not whole. Such a line at the end was never acknowledged: the write was cut, or
 * left a hole of zeros.
 * @throws DamagedJournal when whole lines follow one that is not, with no hole: those were acknowledged, and so was it
 */
function readLines(path: string): ReadFile {
  const content = readFileSync(path);
  const entries: Entry[] = [];
  let whole = 0;
  while (whole < content.length) {
    const end = content.indexOf(10, whole);
    const entry = end < 0 ? undefined : entryOf(content.subarray(whole, end).toString());
    if (!entry) break;
    entries.push(entry);
    whole = end + 1;
  }
  const rest = content.subarray(whole);
  if (
    !rest.includes(0) &&
    rest
      .toString()
      .split("\n")
      .some((line) => entryOf(line) !== undefined)
  )
    throw new DamagedJournal(path);
  return { entries, whole };
}

/**
 * All entries in a folder after a number, in order. A last entry that was not written to its end was never acknowledged and
 * is left out.
 * @throws DamagedJournal when an entry is missing between two others
 */
export function entriesAfter(folder: string, number: number): readonly Entry[] {
  const found: Entry[] = [];
  for (const { path } of filesIn(folder)) {
    for (const entry of readLines(path).entries) {
      if (entry.number <= number) continue;
      if (entry.number !== (found.at(-1)?.number ?? number) + 1) throw new DamagedJournal(path);
      found.push(entry);
    }
  }
  return found;
}

/** The journal of a folder that is written to. */
export interface Journal {
  /**
   * Writes an entry, without making sure that it is on the disk.
   * @returns takes it back, as long as nothing was written after it
   * @throws what the system says when it cannot be written; then nothing of it stands there
   */
  write(entry: Entry): () => void;
  /** Comes back when everything written so far is on the disk; several who wait are served by one flush. */
  flushed(): Promise<void>;
  /** Goes on in a new file, which begins with this number. */
  turn(first: number): void;
  /** Removes files in which all is before this number. */
  cut(number: number): void;
  /** Bytes written since the last turn. */
  readonly size: number;
  close(): void;
}

/** @param next the number that the next entry will have */
export function openJournal(folder: string, next: number): Journal {
  const last = filesIn(folder).at(-1);
  let file = last ? openSync(last.path, "a+") : begin(next);
  // What was not written to its end would stand before what comes now.
  if (last) ftruncateSync(file, readLines(last.path).whole);
  let size = fstatSync(file).size;
  let waiting: { done(): void; failed(error: unknown): void }[] = [];
  let flushing = false;
  /** Files that were written to before, to be closed when no flush of them is on its way. */
  const left: number[] = [];

  function begin(first: number): number {
    const opened = openSync(join(folder, nameOf(first)), "a+");
    syncFolder(folder);
    return opened;
  }

  function flush(): void {
    if (flushing || waiting.length === 0) return;
    flushing = true;
    const served = waiting;
    waiting = [];
    fdatasync(file, (error) => {
      flushing = false;
      for (const one of left.splice(0)) closeSync(one);
      for (const one of served) {
        if (error) one.failed(error);
        else one.done();
      }
      flush();
    });
  }

  return {
    get size() {
      return size;
    },
    write: (entry) => {
      const line = lineOf(entry);
      const before = size;
      const back = () => {
        ftruncateSync(file, before);
        size = before;
      };
      let written = 0;
      try {
        while (written < line.length) written += writeSync(file, line, written);
      } catch (error) {
        back();
        throw error;
      }
      size += line.length;
      return back;
    },
    flushed: () =>
      new Promise((done, failed) => {
        waiting.push({ done, failed });
        flush();
      }),
    turn: (first) => {
      const before = file;
      // Who waits for what stands in it is served by the flush of the next one.
      fdatasyncSync(before);
      file = begin(first);
      size = 0;
      // One that is being flushed is closed after it.
      if (flushing) left.push(before);
      else closeSync(before);
    },
    cut: (number) => {
      const files = filesIn(folder);
      for (const [at, { path }] of files.entries())
        if ((files[at + 1]?.first ?? Number.POSITIVE_INFINITY) <= number + 1) rmSync(path);
      syncFolder(folder);
    },
    close: () => closeSync(file),
  };
}
