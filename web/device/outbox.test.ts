import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import type { AnswerBody } from "#contract";
import { inCheck } from "#core/ledger";

const ID = "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f";
const SITTING = `${ID}7777`;
const mark = (number: number, outcome: "right" | "none" = "right"): AnswerBody => ({
  id: `${ID}${String(number).padStart(4, "0")}`,
  childId: `${ID}9999`,
  ...inCheck("card", `${ID}8888`),
  tags: [],
  item: "b=b",
  outcome,
  ms: 800,
  pass: 1,
  markedAt: `2026-11-23T09:00:${String(number % 60).padStart(2, "0")}.000Z`,
  day: "2026-11-23",
  markedBy: "Ms Harrow",
});

/** A server that can be away, keeps what it is sent by id, and refuses what it is told to. */
class PlainServer {
  readonly kept = new Map<string, AnswerBody>();
  readonly order: string[] = [];
  readonly refuses = new Map<string, string>();
  away = false;
  /** Nobody is signed in on the device. */
  unknown = false;
  /** The answer is lost on its way back, though the marks were kept. */
  losesReply = false;
  requests = 0;

  fetch = async (_url: string, init: RequestInit): Promise<Response> => {
    this.requests++;
    if (this.away) throw new TypeError("fetch failed");
    if (this.unknown)
      return Response.json(
        { type: "about:blank", title: "Who is asking?", status: 401, detail: "Sign in first.", fields: [] },
        { status: 401 },
      );
    const { answers } = JSON.parse(String(init.body)) as { answers: AnswerBody[] };
    const refused = answers.flatMap(({ id }) => (this.refuses.has(id) ? [{ id, says: this.refuses.get(id) }] : []));
    const good = answers.filter(({ id }) => !this.refuses.has(id));
    for (const answer of good) {
      if (!this.kept.has(answer.id)) this.order.push(answer.id);
      this.kept.set(answer.id, answer);
    }
    if (this.losesReply) throw new TypeError("fetch failed");
    const fates = answers.map(({ id }, at) => {
      const says = this.refuses.get(id) ?? "";
      return { at, fate: says ? "refused" : "kept", says };
    });
    return Response.json({ fates, saved: good.map(({ id }) => id), refused });
  };
}

let server: PlainServer;
/** The page, opened anew on the same device. */
async function openPage() {
  vi.resetModules();
  const { outbox } = await import("./outbox.ts");
  await outbox.ready;
  return outbox;
}
async function emptied(outbox: Awaited<ReturnType<typeof openPage>>): Promise<void> {
  await vi.waitFor(() => expect(outbox.read().waiting).toEqual([]), { timeout: 15_000, interval: 20 });
}

beforeEach(async () => {
  server = new PlainServer();
  vi.stubGlobal("fetch", server.fetch);
  vi.stubGlobal("addEventListener", () => {});
  vi.stubGlobal("indexedDB", new IDBFactory());
});
afterEach(() => vi.unstubAllGlobals());

describe("marks on their way", () => {
  test("are waited for by whoever reads after them, and not by more than those", async () => {
    const outbox = await openPage();
    const answered: (() => void)[] = [];
    vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
      await new Promise<void>((done) => answered.push(done));
      return server.fetch(url, init);
    });
    await outbox.sent();
    outbox.add(mark(1), SITTING);
    let read = false;
    const reading = outbox.sent().then(() => {
      read = true;
    });
    await vi.waitFor(() => expect(answered).toHaveLength(1));
    outbox.add(mark(2), SITTING);
    expect(read).toBe(false);
    answered[0]?.();
    await reading;
    expect(outbox.read().waiting.map(({ id }) => id)).toEqual([mark(2).id]);
    await vi.waitFor(() => expect(answered).toHaveLength(2));
    answered[1]?.();
    await emptied(outbox);
  });

  test("are not waited for where the line is down", async () => {
    server.away = true;
    const outbox = await openPage();
    outbox.add(mark(1), SITTING);
    await outbox.sent();
    expect(outbox.read()).toMatchObject({ lineDown: true, waiting: [mark(1)] });
    let read = false;
    void outbox.sent().then(() => {
      read = true;
    });
    await Promise.resolve();
    await Promise.resolve();
    expect(read).toBe(true);
  });

  test("are sent in order, and none waits when the server has them", async () => {
    const outbox = await openPage();
    for (let number = 1; number <= 25; number++) outbox.add(mark(number), SITTING);
    expect(outbox.read().waiting.length).toBe(25);
    await emptied(outbox);
    expect(server.order).toEqual(Array.from({ length: 25 }, (_, at) => mark(at + 1).id));
    expect(outbox.read().lineDown).toBe(false);
  });

  test("outlive a sign-out, also across a reload, and go under the name of who made them once someone is in", async () => {
    const outbox = await openPage();
    server.unknown = true;
    for (const number of [1, 2]) outbox.add(mark(number), SITTING);
    await vi.waitFor(() => expect(server.requests).toBeGreaterThan(1), { timeout: 5000 });
    expect(outbox.read()).toMatchObject({ refused: [], waiting: [{ id: mark(1).id }, { id: mark(2).id }] });
    const reloaded = await openPage();
    expect(reloaded.read()).toMatchObject({ refused: [], waiting: [{}, {}] });
    server.unknown = false;
    await emptied(reloaded);
    expect([...server.kept.values()].map(({ markedBy }) => markedBy)).toEqual(["Ms Harrow", "Ms Harrow"]);
  });

  test("wait while the server is away, and go by themselves when it is back", async () => {
    const outbox = await openPage();
    server.away = true;
    for (const number of [1, 2, 3]) outbox.add(mark(number), SITTING);
    await vi.waitFor(() => expect(outbox.read().lineDown).toBe(true), { timeout: 5000 });
    expect(outbox.read().waiting.map((answer) => answer.id)).toEqual([1, 2, 3].map((number) => mark(number).id));
    server.away = false;
    await emptied(outbox);
    expect(server.order).toHaveLength(3);
    expect(outbox.read().lineDown).toBe(false);
  });

  test("are still there when the page is opened anew, before what comes then", async () => {
    const before = await openPage();
    server.away = true;
    for (const number of [1, 2, 3]) before.add(mark(number), SITTING);
    await vi.waitFor(() => expect(before.read().lineDown).toBe(true), { timeout: 5000 });
    await new Promise((done) => setTimeout(done, 50));
    const after = await openPage();
    expect(after.read().waiting.map((answer) => answer.id)).toEqual([1, 2, 3].map((number) => mark(number).id));
    after.add(mark(4), SITTING);
    server.away = false;
    await emptied(after);
    expect(server.order).toEqual([1, 2, 3, 4].map((number) => mark(number).id));
    const last = await openPage();
    expect(last.read().waiting).toEqual([]);
  });

  test("are sent again when the answer to them was lost, and are kept once", async () => {
    const outbox = await openPage();
    server.losesReply = true;
    const lost = mark(41);
    outbox.add(lost, SITTING);
    await vi.waitFor(() => expect(server.kept.has(lost.id)).toBe(true), { timeout: 5000 });
    expect(outbox.read().waiting).toHaveLength(1);
    server.losesReply = false;
    await emptied(outbox);
    expect(server.requests).toBeGreaterThan(1);
    expect(server.order.filter((id) => id === lost.id)).toHaveLength(1);
  });

  test("of a child who was erased go, whether they wait, were refused or were sent; others stay", async () => {
    const outbox = await openPage();
    const gone = `${ID}6666`;
    server.refuses.set(mark(2).id, "This child is not here any more.");
    outbox.add({ ...mark(1), childId: gone } as AnswerBody, SITTING);
    outbox.add({ ...mark(2), childId: gone } as AnswerBody, SITTING);
    outbox.add(mark(3), SITTING);
    await emptied(outbox);
    server.away = true;
    outbox.add({ ...mark(4), childId: gone } as AnswerBody, SITTING);
    outbox.add(mark(5), SITTING);
    await vi.waitFor(() => expect(outbox.read().lineDown).toBe(true), { timeout: 5000 });
    await outbox.forgetChildren([gone]);
    expect(outbox.read().refused).toEqual([]);
    expect(outbox.read().waiting.map((one) => one.id)).toEqual([mark(5).id]);
    const after = await openPage();
    expect(after.read().refused).toEqual([]);
    expect((await after.logOf(SITTING)).map((one) => one.id)).toEqual([mark(3).id, mark(5).id]);
    server.away = false;
    await emptied(after);
    expect(server.kept.has(mark(4).id)).toBe(false);
  });

  test("that the server refuses stop no other, and stay in the tray: discarded, put back, sent again", async () => {
    const outbox = await openPage();
    server.refuses.set(mark(2).id, "This card is not in the check.");
    for (const number of [1, 2, 3]) outbox.add(mark(number), SITTING);
    await emptied(outbox);
    expect([...server.kept.keys()]).toEqual([mark(1).id, mark(3).id]);
    expect(outbox.read().refused).toMatchObject([{ says: "This card is not in the check." }]);
    await new Promise((done) => setTimeout(done, 50));
    const again = await openPage();
    expect(again.read().refused).toHaveLength(1);
    expect(again.read().waiting).toEqual([]);
    const discarded = await again.discardRefused();
    expect((await openPage()).read().refused).toEqual([]);
    await again.putBack(discarded);
    const third = await openPage();
    expect(third.read().refused).toMatchObject([{ says: "This card is not in the check." }]);
    server.refuses.clear();
    third.sendAgain();
    await emptied(third);
    expect(third.read().refused).toEqual([]);
    expect([...server.kept.keys()]).toEqual([1, 3, 2].map((number) => mark(number).id));
  });

  test("that are refused as a whole are told with the server's words", async () => {
    const outbox = await openPage();
    const body = {
      type: "about:blank",
      title: "Not accepted",
      status: 422,
      detail: "The content is not as expected. Nothing was changed.",
      fields: [],
    };
    vi.stubGlobal("fetch", async () => new Response(JSON.stringify(body), { status: 422 }));
    outbox.add(mark(1), SITTING);
    await emptied(outbox);
    expect(outbox.read().refused[0]?.says).toBe(body.detail);
  });

  test("stay on the device after they were sent, until their sitting is forgotten", async () => {
    const outbox = await openPage();
    for (const number of [1, 2]) outbox.add(mark(number), SITTING);
    await emptied(outbox);
    server.away = true;
    outbox.add(mark(3), SITTING);
    await vi.waitFor(() => expect(outbox.read().lineDown).toBe(true), { timeout: 5000 });
    const again = await openPage();
    const ids = async () => (await again.logOf(SITTING)).map((answer) => answer.id);
    expect(await ids()).toEqual([1, 2, 3].map((number) => mark(number).id));
    expect(again.read().waiting).toHaveLength(1);
    await again.forget(SITTING);
    expect(await ids()).toEqual([mark(3).id]);
    expect(await again.logOf("another")).toEqual([]);
  });

  test("tell who listens of every change", async () => {
    const outbox = await openPage();
    const seen: number[] = [];
    const stop = outbox.subscribe(() => seen.push(outbox.read().waiting.length));
    outbox.add(mark(1), SITTING);
    await emptied(outbox);
    expect(seen[0]).toBe(1);
    expect(seen.at(-1)).toBe(0);
    stop();
    outbox.add(mark(2), SITTING);
    await emptied(outbox);
    expect(seen.filter((count) => count === 1)).toHaveLength(1);
  });
});
