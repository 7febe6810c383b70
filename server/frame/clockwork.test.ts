import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { wind } from "./clockwork.ts";

describe("what runs by the clock", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());
  const always = async (_: string, work: () => Promise<void>) => {
    await work();
    return true;
  };

  it("is done each time, one after the other; one that fails keeps no other from it", async () => {
    const done: string[] = [];
    const failed = vi.fn();
    const works = {
      first: async () => {
        done.push("first");
        throw new Error("away");
      },
      second: async () => void done.push("second"),
    };
    const stop = wind({ alone: always, everyMs: 1000, works, failed });
    await vi.advanceTimersByTimeAsync(2500);
    expect(done).toEqual(["first", "second", "first", "second"]);
    expect(failed).toHaveBeenCalledTimes(2);
    expect(failed).toHaveBeenCalledWith("first", expect.objectContaining({ message: "away" }));
    await stop();
    await vi.advanceTimersByTimeAsync(5000);
    expect(done).toHaveLength(4);
  });

  it("is never done twice beside itself, and stopping waits for it", async () => {
    let [begun, finish] = [0, () => {}];
    const long = () => {
      begun++;
      return new Promise<void>((done) => {
        finish = done;
      });
    };
    const stop = wind({ alone: always, everyMs: 1000, works: { long }, failed: vi.fn() });
    await vi.advanceTimersByTimeAsync(3500);
    expect(begun).toBe(1);
    let stopped = false;
    const stopping = stop().then(() => {
      stopped = true;
    });
    await vi.advanceTimersByTimeAsync(100);
    expect(stopped).toBe(false);
    finish();
    await stopping;
    expect(stopped).toBe(true);
  });
});
