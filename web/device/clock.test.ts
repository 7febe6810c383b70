import { beforeEach, describe, expect, test, vi } from "vitest";

const kept = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
});

const HOUR = 3_600_000;
const server = Date.parse("2026-11-25T09:00:00.000Z");

/** The module as a page has it that is opened with the device's clock at this time. */
async function openPage(deviceNow: number) {
  vi.resetModules();
  vi.spyOn(Date, "now").mockReturnValue(deviceNow);
  return import("./clock.ts");
}

beforeEach(() => kept.clear());

describe("a device's clock", () => {
  test("that is a day ahead is put right by an answer of the server, also after a reload without a line", async () => {
    const wrong = server + 24 * HOUR;
    const page = await openPage(wrong);
    page.measureClock(new Date(server).toUTCString(), wrong - 40, wrong + 40);
    expect(Math.abs(page.clockNow().getTime() - server)).toBeLessThan(1_500);
    page.rememberZone("Pacific/Honolulu");
    expect(page.todayHere()).toBe("2026-11-24");
    const again = await openPage(wrong + 1000);
    expect(Math.abs(again.clockNow().getTime() - server)).toBeLessThan(2_500);
    expect(again.todayHere()).toBe("2026-11-24");
  });

  test("that is near enough is left alone, and one that was mended is believed again", async () => {
    const page = await openPage(server + 3_000);
    page.measureClock(new Date(server).toUTCString(), server + 2_950, server + 3_050);
    expect(page.clockNow().getTime()).toBe(server + 3_000);
    page.measureClock(new Date(server - 2 * HOUR).toUTCString(), server + 2_950, server + 3_050);
    expect(page.clockNow().getTime()).toBeLessThan(server - HOUR);
    page.measureClock(new Date(server).toUTCString(), server + 2_950, server + 3_050);
    expect(page.clockNow().getTime()).toBe(server + 3_000);
  });

  test("is not judged by an answer that took long, nor by one without a date", async () => {
    const page = await openPage(server);
    page.measureClock(new Date(server - HOUR).toUTCString(), server - 9_000, server);
    page.measureClock(null, server, server);
    page.measureClock("soon", server, server);
    expect(page.clockNow().getTime()).toBe(server);
  });
});

test("marks of one moment keep their order", async () => {
  const page = await openPage(server);
  const stamps = Array.from({ length: 5 }, () => page.stampNow());
  expect([...stamps].sort()).toEqual(stamps);
  expect(new Set(stamps).size).toBe(5);
});

test("a zone that this device does not know is not used", async () => {
  const page = await openPage(server);
  kept.set("keen-zone", "Marlpit/Lock");
  expect(page.dayOfInstant("2026-11-25T12:00:00Z")).toBe("2026-11-25");
});
