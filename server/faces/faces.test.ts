import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  closeFace,
  type DeskEvent,
  deskEvent,
  type FaceEvent,
  faceEvent,
  getFace,
  getSchool,
  livePaths,
  markTaught,
  openFace,
  type SittingView,
  saveAnswers,
  showFace,
  tapFace,
} from "#contract";
import { answerTo, begin, part, stopOf } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [ada, ben] = [uuid(), uuid()] as const;
let sitting: SittingView;
const card = { show: "text", text: "sh", size: "letters" } as const;

async function opened(): Promise<TestHouse> {
  const fresh = await openTestHouse();
  const orderId = (await fresh.ask(getSchool, {})).orders[0]?.id ?? "";
  const classId = uuid();
  await fresh.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const at = "2026-11-20T08:00:00.000Z";
  await fresh.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s3", taughtOn: "2026-11-02", at },
  });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
  ] as const)
    await fresh.ask(addChild, { body: { id, classId, name, note: "" } });
  return fresh;
}
beforeAll(async () => {
  house = await opened();
});
beforeEach(async () => {
  sitting = await begin(house, [ada, ben], [part("card", { scope: "all" })]);
});
afterAll(() => house.close());

/** Reads a stream of events until enough have come. */
async function listen<T>(path: string, schema: { parse(value: unknown): T }) {
  const stop = new AbortController();
  const response = await fetch(house.base + path, { signal: stop.signal });
  const events: T[] = [];
  const body = response.body?.getReader();
  const reading = (async () => {
    let text = "";
    for (;;) {
      const part = await body?.read().catch(() => undefined);
      if (!part || part.done) return;
      text += new TextDecoder().decode(part.value);
      const pieces = text.split("\n\n");
      text = pieces.pop() ?? "";
      for (const piece of pieces)
        if (piece.startsWith("data: ")) events.push(schema.parse(JSON.parse(piece.slice(6))));
    }
  })();
  return {
    status: response.status,
    events,
    closed: reading,
    async until(count: number) {
      for (let tries = 0; events.length < count && tries < 2000; tries++)
        await new Promise((done) => setTimeout(done, 10));
      return events;
    },
    stop: () => stop.abort(),
  };
}
const codeOf = async () => (await house.ask(openFace, { params: { id: sitting.id } })).code;
const show = (face: object) =>
  house.ask(showFace, { params: { id: sitting.id }, body: { face: face as typeof card } });

describe("the child's face on another device", () => {
  test("one code a sitting; it shows what the desk shows, also to one that comes later", async () => {
    const code = await codeOf();
    expect(code).toMatch(/^\d{6}$/);
    expect(await codeOf()).toBe(code);
    const early = await listen<FaceEvent>(livePaths.face(code), faceEvent);
    await show(card);
    await early.until(2);
    expect(early.events).toEqual([
      { kind: "face", face: { show: "nothing" } },
      { kind: "face", face: card },
    ]);
    expect((await house.ask(getFace, { params: { code } })).face).toEqual(card);
    const late = await listen<FaceEvent>(livePaths.face(code), faceEvent);
    expect((await late.until(1))[0]).toEqual({ kind: "face", face: card });
    early.stop();
    late.stop();
  });
  test("a tap reaches the desk", async () => {
    const code = await codeOf();
    const desk = await listen<DeskEvent>(livePaths.desk(sitting.id), deskEvent);
    await house.ask(tapFace, { params: { code }, body: { item: "m=m", choice: "n" } });
    expect(await desk.until(1)).toEqual([{ kind: "tap", item: "m=m", choice: "n" }]);
    desk.stop();
  });
  test("the desk is told that a screen follows it, how far a child slid sounds, and that the screen has gone", async () => {
    const code = await codeOf();
    const desk = await listen<DeskEvent>(livePaths.desk(sitting.id), deskEvent);
    const face = await listen<FaceEvent>(livePaths.face(code), faceEvent);
    await desk.until(1);
    await house.ask(tapFace, { params: { code }, body: { item: "rain", apart: 0.25 } });
    await desk.until(2);
    face.stop();
    expect(await desk.until(3)).toEqual([
      { kind: "screen", isOpen: true },
      { kind: "slid", item: "rain", apart: 0.25 },
      { kind: "screen", isOpen: false },
    ]);
    const far = await house.refused(tapFace, { params: { code }, body: { item: "rain", apart: 2 } });
    expect(far.status).toBe(422);
    desk.stop();
  });
  test("ends with the last check of its sitting: the code leads nowhere, the stream is closed for good", async () => {
    const code = await codeOf();
    const face = await listen<FaceEvent>(livePaths.face(code), faceEvent);
    const [first, second] = sitting.checks;
    if (!first || !second) throw new Error("no checks");
    await house.ask(saveAnswers, { body: { answers: [stopOf(first)] } });
    expect((await house.ask(getFace, { params: { code } })).face).toEqual({ show: "nothing" });
    await house.ask(saveAnswers, { body: { answers: [stopOf(second)] } });
    await face.closed;
    expect(face.events.at(-1)).toEqual({ kind: "end" });
    expect((await house.refused(getFace, { params: { code } })).status).toBe(404);
    expect((await house.refused(tapFace, { params: { code }, body: { item: "m=m", choice: "n" } })).status).toBe(404);
    expect((await listen(livePaths.face(code), faceEvent)).status).toBe(204);
  });
  test("a face has no name, no mark, and nothing that is not a face", async () => {
    const code = await codeOf();
    await show(card);
    const text = await (await fetch(`${house.base}/api/faces/${code}`)).text();
    expect(JSON.parse(text)).toEqual({ face: card, letterShapes: "written" });
    await expect(show({ show: "text", text: "sh", size: "letters", childName: "Ada M." })).resolves.toBeDefined();
    expect((await house.ask(getFace, { params: { code } })).face).toEqual(card);
    expect((await house.refused(showFace, { params: { id: uuid() }, body: { face: card } })).status).toBe(404);
  });
});

describe("the face of a desk that is no sitting", () => {
  const passage = { show: "passage", text: "Fog sat on the cut.", size: 40, spacing: 1.8 } as const;
  test("shows a text, and ends when it is closed", async () => {
    const id = uuid();
    const { code } = await house.ask(openFace, { params: { id } });
    await house.ask(showFace, { params: { id }, body: { face: passage } });
    const face = await listen<FaceEvent>(livePaths.face(code), faceEvent);
    expect(await face.until(1)).toEqual([{ kind: "face", face: passage }]);
    for (let times = 0; times < 2; times++) await house.ask(closeFace, { params: { id } });
    await face.closed;
    expect(face.events.at(-1)).toEqual({ kind: "end" });
    expect((await house.refused(getFace, { params: { code } })).status).toBe(404);
    expect((await house.refused(showFace, { params: { id }, body: { face: passage } })).status).toBe(404);
  });
  test("ends after a day when no one closed it; a sitting's stays as long as its checks", async () => {
    const id = uuid();
    const { code } = await house.ask(openFace, { params: { id } });
    const sittingCode = await codeOf();
    house.now = new Date(house.now.getTime() + 25 * 3_600_000);
    await house.ask(openFace, { params: { id: uuid() } });
    expect((await house.refused(getFace, { params: { code } })).status).toBe(404);
    expect((await house.ask(getFace, { params: { code: sittingCode } })).face).toEqual({ show: "nothing" });
  });
});

describe("two adults on one check", () => {
  test("each is told the other's marks; what was sent twice is told once", async () => {
    const [check] = sitting.checks;
    if (!check) throw new Error("no check");
    const desk = await listen<DeskEvent>(livePaths.desk(sitting.id), deskEvent);
    const answer = answerTo(check, "m=m", { outcome: "wrong", heard: "n" });
    for (let times = 0; times < 2; times++) await house.ask(saveAnswers, { body: { answers: [answer] } });
    await house.ask(saveAnswers, { body: { answers: [answerTo(check, "a=a", { outcome: "right" })] } });
    await desk.until(2);
    expect(
      desk.events.map((event) => (event.kind === "answers" ? event.answers.map((one) => one.id) : []))[0],
    ).toEqual([answer.id]);
    expect(desk.events).toHaveLength(2);
    desk.stop();
    expect((await fetch(house.base + livePaths.desk(uuid()))).status).toBe(404);
  });
});

test("the stream of a wrong code counts as a try, and a right one is never shut out by coming back", async () => {
  const other = await opened();
  const { code } = await other.ask(openFace, { params: { id: uuid() } });
  for (let times = 0; times < 40; times++) {
    const stop = new AbortController();
    const stream = await fetch(`${other.base}/api/faces/${code}/live`, { signal: stop.signal });
    expect(stream.status).toBe(200);
    stop.abort();
  }
  const wrong: number[] = [];
  for (let times = 0; times < 33; times++) wrong.push((await fetch(`${other.base}/api/faces/100000/live`)).status);
  expect(wrong.filter((status) => status === 204)).toHaveLength(30);
  expect(wrong.slice(30)).toEqual([429, 429, 429]);
  await other.close();
});

test("codes cannot be tried out: after thirty wrong ones the door is shut, and says so", async () => {
  const other = await opened();
  const status: number[] = [];
  for (let code = 100_000; code < 100_035; code++) {
    const problem = await other.refused(getFace, { params: { code: String(code) } });
    status.push(problem.status);
  }
  expect(status.slice(0, 30).every((one) => one === 404)).toBe(true);
  expect(status.slice(30)).toEqual([429, 429, 429, 429, 429]);
  // The stream of a code is a way to try it as well.
  expect((await fetch(`${other.base}/api/faces/123456/live`)).status).toBe(429);
  await other.close();
});
