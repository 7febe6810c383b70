import { describe, expect, it } from "vitest";
import { sharing } from "./shared.ts";
import { turn } from "./turn.ts";

/** Work that begins and ends when the test says so. */
function held() {
  let [begin, end, fail] = [() => {}, (_: string) => {}, (_: Error) => {}];
  let times = 0;
  return {
    work: (begun: () => void) => {
      times++;
      begin = begun;
      return new Promise<string>((done, failed) => {
        [end, fail] = [done, failed];
      });
    },
    begin: () => begin(),
    end: (told: string) => end(told),
    fail: () => fail(new Error("away")),
    times: () => times,
  };
}

describe("reads that ask the same", () => {
  it("share one answer while it has not begun, and not afterwards", async () => {
    const read = sharing();
    const one = held();
    const all = [read("map", one.work), read("map", one.work), read("map", one.work)];
    await turn();
    expect(one.times()).toBe(1);
    one.begin();
    const other = held();
    const late = read("map", other.work);
    await turn();
    expect(other.times()).toBe(1);
    // The first has ended: the second still waits, and is still joined.
    one.end("old");
    expect(await Promise.all(all)).toEqual(["old", "old", "old"]);
    const joined = read("map", one.work);
    expect(one.times()).toBe(1);
    other.begin();
    other.end("new");
    expect([await late, await joined]).toEqual(["new", "new"]);
  });

  it("do not share with what asks something else", async () => {
    const read = sharing();
    const [one, other] = [held(), held()];
    const both = [read("map of one school", one.work), read("map of another", other.work)];
    await turn();
    one.end("one");
    other.end("other");
    expect(await Promise.all(both)).toEqual(["one", "other"]);
  });

  it("fail together, and the next one tries again", async () => {
    const read = sharing();
    const one = held();
    const both = [read("map", one.work), read("map", one.work)];
    await turn();
    one.fail();
    expect((await Promise.allSettled(both)).map(({ status }) => status)).toEqual(["rejected", "rejected"]);
    const next = read("map", one.work);
    await turn();
    expect(one.times()).toBe(2);
    one.end("there");
    expect(await next).toBe("there");
  });
});
