import {
  type AnswerBody,
  type Asking,
  addressOf,
  getLexicon,
  getSchool,
  listTexts,
  MOST_ANSWERS,
  type Problem,
  saveAnswers,
  startSitting,
} from "#contract";
import { dayAt } from "#core/ledger";
import { carriersFrom, readLexicon, readMadeUp } from "#core/words";
import { demoZone } from "./calendar.ts";
import { type DemoRequest, request } from "./checks.ts";
import { MarlpitLock } from "./school.ts";

/**
 * The same requests, with answers of several checks sent together: nothing but a check of the same child is drawn from them,
 * and whatever else comes finds them all there.
 */
function* gathered(requests: readonly DemoRequest[]): Generator<DemoRequest> {
  let waiting: AnswerBody[] = [];
  function* send() {
    if (waiting.length > 0) yield request(saveAnswers, { body: { answers: waiting } });
    waiting = [];
  }
  for (const one of requests) {
    if (one.endpoint === saveAnswers) {
      const { answers } = one.asking.body as { answers: AnswerBody[] };
      if (waiting.length + answers.length > MOST_ANSWERS) yield* send();
      waiting.push(...answers);
      continue;
    }
    const begun =
      one.endpoint === startSitting ? (one.asking.body as Asking<typeof startSitting>["body"]).children : undefined;
    const isApart = begun?.every(({ childId }) => waiting.every((answer) => answer.childId !== childId));
    if (!isApart) yield* send();
    yield one;
  }
  yield* send();
}

/**
 * Fills an empty school with the demo data, over HTTP and through the contract like any other client.
 * @returns how many requests were sent; 0 when the school has classes already
 */
export async function fillDemo(base: string): Promise<number> {
  const school = getSchool.answer.parse(await (await fetch(base + getSchool.path)).json());
  const order = school.orders[0];
  if (school.classes.length > 0 || !order) return 0;
  const shipped = getLexicon.answer.parse(await (await fetch(base + getLexicon.path)).json());
  const stock = {
    lexicon: readLexicon(shipped.words),
    madeUp: readMadeUp(shipped.madeUp),
    sentences: shipped.sentences,
    carriers: carriersFrom(shipped.sentences, new Map(Object.entries(shipped.carriers))),
    texts: listTexts.answer.parse(await (await fetch(base + listTexts.path)).json()),
  };
  console.log("Filling in the demo school, about half a minute …");
  const requests = new MarlpitLock(dayAt(demoZone, new Date()), order, stock).build();
  // Building takes longer than the server holds an idle line; without a turn for what arrived meanwhile,
  // the next request would go out on a line that is closed.
  await new Promise((turn) => setTimeout(turn, 0));
  let sent = 0;
  for (const { endpoint, asking } of gathered(requests)) {
    sent++;
    const response = await fetch(base + addressOf(endpoint, asking.params, asking.query), {
      method: endpoint.method,
      headers: { "content-type": "application/json" },
      body: JSON.stringify(asking.body),
    });
    if (response.ok) {
      const answer = (await response.json()) as { refused?: { says: string }[] };
      if (answer.refused?.[0]) throw new Error(`Demo data refused at ${endpoint.path}: ${answer.refused[0].says}`);
      continue;
    }
    const problem = (await response.json()) as Problem;
    throw new Error(`Demo data refused at ${endpoint.path}: ${problem.detail}`);
  }
  return sent;
}
