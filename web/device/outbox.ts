import { useSyncExternalStore } from "react";
import { type AnswerBody, MOST_ANSWERS, saveAnswers } from "#contract";
import { call, Refused, readAfter } from "./api.ts";
import { type Box, box, keepInBox } from "./box.ts";

/** A mark that the server would not keep, with its reason. */
export interface RefusedMark {
  readonly answer: AnswerBody;
  readonly says: string;
}

export interface OutboxState {
  /** Answers the server has not confirmed yet, oldest first. */
  readonly waiting: readonly AnswerBody[];
  /** Answers the server will not take, with its reason; kept for the teacher to see. */
  readonly refused: readonly RefusedMark[];
  readonly lineDown: boolean;
}

const FIRST_WAIT = 600;
const LONGEST_WAIT = 8000;
/** What is read waits no longer than this for marks that are on their way. */
const LONGEST_BEFORE_READING = 3000;

/** Marks on their way to the server: kept on the device until the server says it has them. */
class Outbox {
  private state: OutboxState = { waiting: [], refused: [], lineDown: false };
  private readonly listeners = new Set<() => void>();
  private sort = Date.now() * 1000;
  private sending = false;
  private wait = FIRST_WAIT;
  readonly ready: Promise<void>;

  constructor() {
    this.ready = this.restore();
    addEventListener("online", () => this.flush());
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  read = (): OutboxState => this.state;

  /** Resolves when no mark waits that waits now; soon, too, where the line is down or an answer does not come. */
  async sent(): Promise<void> {
    const before = new Set(this.state.waiting.map(({ id }) => id));
    const done = () => this.state.lineDown || !this.state.waiting.some(({ id }) => before.has(id));
    if (done()) return;
    await new Promise<void>((go) => {
      const end = () => {
        clearTimeout(late);
        stop();
        go();
      };
      const late = setTimeout(end, LONGEST_BEFORE_READING);
      const stop = this.subscribe(() => done() && end());
    });
  }

  /** Keeps the answer of a sitting on the device and sends it as soon as there is a line. */
  add(answer: AnswerBody, sittingId: string): void {
    this.set({ waiting: [...this.state.waiting, answer] });
    this.sort += 1;
    const row = { id: answer.id, sort: this.sort, answer, sittingId };
    void keepInBox("marks", row).finally(() => this.flush());
  }

  /** All marks of a sitting that were made on this device and not refused, sent or not, in order of marking. */
  async logOf(sittingId: string): Promise<readonly AnswerBody[]> {
    const rows = await (await box).getAllFromIndex("marks", "sitting", sittingId);
    return rows
      .filter((row) => !row.refused)
      .sort((one, other) => one.sort - other.sort)
      .map((row) => row.answer);
  }

  /** Forgets the marks of a sitting that the server has; what still waits stays. */
  async forget(sittingId: string): Promise<void> {
    const db = await box;
    const rows = await db.getAllFromIndex("marks", "sitting", sittingId);
    await Promise.all(rows.filter((row) => row.sent).map((row) => db.delete("marks", row.id)));
  }

  /** Forgets all marks of these children, sent or not: they are not at the school any more, and nothing of them is kept. */
  async forgetChildren(ids: readonly string[]): Promise<void> {
    await this.ready;
    const gone = new Set(ids);
    this.set({
      waiting: this.state.waiting.filter((answer) => !gone.has(answer.childId)),
      refused: this.state.refused.filter(({ answer }) => !gone.has(answer.childId)),
    });
    const db = await box;
    const rows = await db.getAll("marks");
    await Promise.all(rows.filter((row) => gone.has(row.answer.childId)).map((row) => db.delete("marks", row.id)));
  }

  /** Sends what was refused once more, behind what waits. */
  sendAgain(): void {
    const again = this.state.refused.map(({ answer }) => answer);
    this.set({ refused: [], waiting: [...this.state.waiting, ...again] });
    void this.change(again, ({ refused: _, ...row }) => row).finally(() => this.flush());
  }

  /** Forgets what was refused. @returns it as it lay on the device, for `putBack` */
  async discardRefused(): Promise<readonly Box["marks"]["value"][]> {
    const ids = this.state.refused.map(({ answer }) => answer.id);
    this.set({ refused: [] });
    const db = await box;
    const rows = await Promise.all(ids.map((id) => db.get("marks", id)));
    await Promise.all(ids.map((id) => db.delete("marks", id)));
    return rows.filter((row) => row !== undefined);
  }

  /** Puts marks back that were discarded. */
  async putBack(rows: readonly Box["marks"]["value"][]): Promise<void> {
    const db = await box;
    await Promise.all(rows.map((row) => db.put("marks", row)));
    const back = rows.map(({ answer, refused = "" }) => ({ answer, says: refused }));
    this.set({ refused: [...this.state.refused, ...back] });
  }

  /** Changes how marks lie on the device; one that becomes undefined goes. */
  private async change(
    marks: readonly AnswerBody[],
    to: (row: Box["marks"]["value"]) => Box["marks"]["value"] | undefined,
  ): Promise<void> {
    const db = await box;
    await Promise.all(
      marks.map(async ({ id }) => {
        const row = await db.get("marks", id);
        const now = row && to(row);
        if (now) await db.put("marks", now);
        else if (row) await db.delete("marks", id);
      }),
    );
  }

  private async restore(): Promise<void> {
    const rows = await (await box).getAllFromIndex("marks", "sort");
    const added = new Set(this.state.waiting.map((answer) => answer.id));
    const left = rows.filter((row) => !row.refused && !row.sent && !added.has(row.id)).map((row) => row.answer);
    const refused = rows.flatMap((row) => (row.refused ? [{ answer: row.answer, says: row.refused }] : []));
    this.set({ waiting: [...left, ...this.state.waiting], refused });
    this.flush();
  }

  private set(change: Partial<OutboxState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  /** Sends what waits, in order. Sending twice changes nothing: the server knows every id. */
  flush(): void {
    if (this.sending || this.state.waiting.length === 0) return;
    this.sending = true;
    void this.send(this.state.waiting.slice(0, MOST_ANSWERS)).finally(() => {
      this.sending = false;
      if (this.state.waiting.length === 0) return;
      setTimeout(() => this.flush(), this.state.lineDown ? this.wait : 0);
    });
  }

  private async send(batch: readonly AnswerBody[]): Promise<void> {
    let kept: readonly AnswerBody[] = [];
    let bad: readonly RefusedMark[] = [];
    try {
      const { fates } = await call(saveAnswers, { body: { answers: [...batch] } });
      const whose = (fate: (typeof fates)[number]) => batch[fate.at] ?? [];
      kept = fates.flatMap((fate) => (fate.fate === "refused" ? [] : whose(fate)));
      bad = fates.flatMap((fate) => {
        const answer = fate.fate === "refused" ? batch[fate.at] : undefined;
        return answer ? [{ answer, says: fate.says }] : [];
      });
    } catch (error) {
      // Signed out or locked meanwhile: they go under the name of who made them once someone is in again.
      const later = [401, 429];
      if (!(error instanceof Refused) || error.problem.status >= 500 || later.includes(error.problem.status)) {
        this.wait = Math.min(LONGEST_WAIT, this.wait * 2);
        this.set({ lineDown: true });
        return;
      }
      bad = batch.map((answer) => ({ answer, says: error.problem.detail }));
    }
    this.wait = FIRST_WAIT;
    const gone = new Set([...kept, ...bad.map((one) => one.answer)].map(({ id }) => id));
    await this.change(kept, (row) => (row.sittingId ? { ...row, sent: true } : undefined));
    for (const { answer, says } of bad) await this.change([answer], (row) => ({ ...row, refused: says }));
    this.set({
      lineDown: false,
      waiting: this.state.waiting.filter((answer) => !gone.has(answer.id)),
      refused: [...this.state.refused, ...bad],
    });
  }
}

export const outbox = new Outbox();
readAfter(() => outbox.sent());

export function useOutbox(): OutboxState {
  return useSyncExternalStore(outbox.subscribe, outbox.read);
}
