import { expose } from "comlink";
import { afterEach, expect, test } from "vitest";
import { NotWorkedOut, offPage } from "./off-page.ts";

const adder = {
  add: (one: number, other: number) => one + other,
  never: () => new Promise<number>(() => undefined),
  refuse: (): number => {
    throw new Error("One of them is no number.");
  },
};

const opened: MessagePort[] = [];
afterEach(() => {
  for (const port of opened.splice(0)) port.close();
});

/** A worker as the page sees one: what it is posted arrives, and it can break. */
class PlainWorker extends EventTarget {
  ended = false;
  private readonly port: MessagePort;
  constructor(loads = true) {
    super();
    const { port1, port2 } = new MessageChannel();
    opened.push(port1, port2);
    this.port = port1;
    port1.onmessage = ({ data }) => this.dispatchEvent(new MessageEvent("message", { data }));
    if (loads) expose(adder, port2);
    else setTimeout(() => this.break());
  }
  postMessage(message: unknown, transfer: Transferable[]): void {
    this.port.postMessage(message, transfer);
  }
  break(): void {
    this.dispatchEvent(new Event("error"));
  }
  terminate(): void {
    this.ended = true;
  }
}

/** Workers of which those at these turns do not load. */
function workers(...broken: readonly number[]) {
  const made: PlainWorker[] = [];
  const off = offPage<typeof adder>(() => {
    const worker = new PlainWorker(!broken.includes(made.length));
    made.push(worker);
    return worker as unknown as Worker;
  });
  return { made, off };
}

test("one worker answers all that is asked, and none is there before something is", async () => {
  const { made, off } = workers();
  expect(made).toHaveLength(0);
  expect(await off.ask((worker) => worker.add(2, 3))).toBe(5);
  expect(await off.ask((worker) => worker.add(4, 3))).toBe(7);
  expect(made).toHaveLength(1);
});

test("one that does not load is tried once more; when that does not help, whoever waits is told", async () => {
  const once = workers(0);
  expect(await once.off.ask((worker) => worker.add(2, 3))).toBe(5);
  expect(once.made).toHaveLength(2);
  expect(once.made[0]?.ended).toBe(true);

  const twice = workers(0, 1);
  await expect(twice.off.ask((worker) => worker.add(2, 3))).rejects.toThrow(NotWorkedOut);
  // And the next that is asked finds one that loads.
  expect(await twice.off.ask((worker) => worker.add(2, 3))).toBe(5);
  expect(twice.made).toHaveLength(3);
});

test("one that breaks on the way takes all that wait to a new one", async () => {
  const { made, off } = workers();
  const asked = [1, 2].map(() => {
    let times = 0;
    return off.ask((worker) => (times++ === 0 ? worker.never() : worker.add(20, 3)));
  });
  await off.ask((worker) => worker.add(1, 1));
  made[0]?.break();
  expect(await Promise.all(asked)).toEqual([23, 23]);
  expect(made).toHaveLength(2);
  // What one says that is gone already ends no other.
  made[0]?.break();
  expect(await off.ask((worker) => worker.add(2, 3))).toBe(5);
  expect(made).toHaveLength(2);
});

test("what the worker itself throws comes as it is, and is not tried again", async () => {
  const { made, off } = workers();
  await expect(off.ask((worker) => worker.refuse())).rejects.toThrow("One of them is no number.");
  expect(made).toHaveLength(1);
});

test("after its end a new one is begun", async () => {
  const { made, off } = workers();
  await off.ask((worker) => worker.add(2, 3));
  off.end();
  expect(made[0]?.ended).toBe(true);
  expect(await off.ask((worker) => worker.add(2, 3))).toBe(5);
  expect(made).toHaveLength(2);
});
