import { useSyncExternalStore } from "react";
import { type AnswerBody, MOST_ANSWERS, saveAnswers } from "#contract";
import { call, Refused } from "./api.ts";
import { box } from "./box.ts";

export interface OutboxState {
  /** Answers the server has not confirmed yet, oldest first. */
  readonly waiting: readonly AnswerBody[];
  /** Answers the server will not take, with its reason; kept for the teacher to see. */
  readonly refused: readonly { readonly answer: AnswerBody; readonly says: string }[];
  readonly lineDown: boolean;
}

const FIRST_WAIT = 600;
const LONGEST_WAIT = 8000;

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

  /** Keeps the answer of a sitting on the device and sends it as soon as there is a line. */
  add(answer: AnswerBody, sittingId: string): void {
    this.set({ waiting: [...this.state.waiting, answer] });
    this.sort += 1;
    const row = { id: answer.id, sort: this.sort, answer, sittingId };
    void box.then((db) => db.put("marks", row)).finally(() => this.flush());
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

  /** Forgets answers that the server refused, once the teacher has seen them. */
  dismissRefused(): void {
    const ids = this.state.refused.map(({ answer }) => answer.id);
    this.set({ refused: [] });
    void box.then((db) => Promise.all(ids.map((id) => db.delete("marks", id))));
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
    let saved: readonly string[] = [];
    let refused: readonly { id: string; says: string }[] = [];
    try {
      ({ saved, refused } = await call(saveAnswers, { body: { answers: [...batch] } }));
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.status >= 500) {
        this.wait = Math.min(LONGEST_WAIT, this.wait * 2);
        this.set({ lineDown: true });
        return;
      }
      refused = batch.map((answer) => ({ id: answer.id, says: error.problem.detail }));
    }
    this.wait = FIRST_WAIT;
    const gone = new Set([...saved, ...refused.map((one) => one.id)]);
    const bad = refused.flatMap(({ id, says }) => {
      const answer = batch.find((one) => one.id === id);
      return answer ? [{ answer, says }] : [];
    });
    const db = await box;
    await Promise.all(
      saved.map(async (id) => {
        const row = await db.get("marks", id);
        if (row?.sittingId) await db.put("marks", { ...row, sent: true });
        else if (row) await db.delete("marks", id);
      }),
    );
    await Promise.all(
      bad.map(async ({ answer, says }) => {
        const row = await db.get("marks", answer.id);
        if (row) await db.put("marks", { ...row, refused: says });
      }),
    );
    this.set({
      lineDown: false,
      waiting: this.state.waiting.filter((answer) => !gone.has(answer.id)),
      refused: [...this.state.refused, ...bad],
    });
  }
}

export const outbox = new Outbox();

export function useOutbox(): OutboxState {
  return useSyncExternalStore(outbox.subscribe, outbox.read);
}
