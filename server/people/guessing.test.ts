import { request } from "node:http";
import { afterAll, beforeAll, expect, test } from "vitest";
import * as contract from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

const long = Boolean(process.env.KEEN_LONG);
/** Guesses at each door. */
const GUESSES = long ? 5000 : 100;
/** Each passphrase that is looked at costs a tenth of a second: the short run stops at what one name bounds. */
const TRIED_NAMES = long ? 3 : 1;
const LONG_MS = 1_800_000;

let house: TestHouse;
const names = ["Ash B.", "Birk D.", "Cory F.", "Dell H."];
beforeAll(async () => {
  house = await openTestHouse();
  for (const name of names)
    await house.school.people.add(crypto.randomUUID(), {
      name,
      role: "teacher",
      classIds: [],
      groupIds: [],
      typedNames: [],
    });
  await house.school.devices.letIn({
    id: crypto.randomUUID(),
    name: "T.",
    token: "kept",
    at: house.now.toISOString(),
  });
});
afterAll(() => house.close());

/** How often each status was told, and what was said last. */
async function guessed(
  endpoint: contract.Endpoint,
  asking: (at: number) => { params?: unknown; body?: unknown },
): Promise<{ told: Record<number, number>; says: string; ms: number }> {
  const told: Record<number, number> = {};
  let says = "";
  const began = performance.now();
  for (let at = 0; at < GUESSES; at++) {
    const { params, body } = asking(at);
    const response = await fetch(house.base + contract.addressOf(endpoint, params), {
      method: endpoint.method,
      headers: { "content-type": "application/json", cookie: "keen.device=kept" },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    told[response.status] = (told[response.status] ?? 0) + 1;
    says = ((await response.json()) as contract.Problem).detail;
  }
  return { told, says, ms: performance.now() - began };
}

test("of very many guesses few are looked at; the others are told how long to wait, and it is not long", {
  timeout: LONG_MS,
}, async () => {
  const memberId = (await house.school.people.list())[0]?.id;
  const doors = [
    {
      most: 60,
      ...(await guessed(contract.signIn, (at) => ({
        body: { name: names[at % TRIED_NAMES], passphrase: `guess number ${at}`, keep: false },
      }))),
    },
    {
      most: 5,
      ...(await guessed(contract.signInByCode, (at) => ({ body: { memberId, code: String(1000 + at) } }))),
    },
    {
      most: 30,
      ...(await guessed(contract.getInvitation, (at) => ({
        params: { token: `guess-${String(at).padStart(20, "0")}` },
      }))),
    },
    {
      most: 30,
      ...(await guessed(contract.getShared, (at) => ({
        params: { token: `guess-${String(at).padStart(37, "0")}` },
      }))),
    },
    {
      most: 60,
      ...(await guessed(contract.signInByPasskey, (at) => {
        const id = `guess-${at}`;
        const response = { clientDataJSON: "AAAA", authenticatorData: "AAAA", signature: "AAAA" };
        const shown = { id, rawId: id, type: "public-key", clientExtensionResults: {}, response };
        return { body: { shown, keep: false } };
      })),
    },
    { most: 30, ...(await guessed(contract.getFace, (at) => ({ params: { code: String(100_000 + at) } }))) },
  ];
  for (const { told, most, says } of doors) {
    const looked = Object.entries(told).filter(([status]) => status !== "429");
    expect(looked.reduce((sum, [, count]) => sum + count, 0)).toBeLessThanOrEqual(most);
    expect(looked.map(([status]) => Number(status)).filter((status) => status >= 500 || status === 200)).toEqual([]);
    expect(told[429]).toBeGreaterThanOrEqual(GUESSES - most);
    expect(Number(/Wait (\d+) minutes/.exec(says)?.[1] ?? 1)).toBeLessThanOrEqual(15);
  }
  // What was tried is not kept as it was, and no name of anyone is logged.
  for (const name of names) expect(house.logged.join()).not.toContain(name);
  // The trail tells of them, and is not filled by what was not looked at.
  const { rows } = await house.school.trail.read({ did: "sign-in-failed" });
  expect(rows.length).toBeGreaterThanOrEqual(20);
  expect(rows.length).toBeLessThanOrEqual(125);
});

/** The status of a passphrase that is tried from an address of this machine. */
function triedFrom(localAddress: string, name: string, passphrase: string): Promise<number> {
  return new Promise((done, failed) => {
    const options = { method: "POST", localAddress, headers: { "content-type": "application/json" } };
    const asked = request(`${house.base}${contract.signIn.path}`, options, (response) => {
      response.resume().on("end", () => done(response.statusCode ?? 0));
    });
    asked.on("error", failed).end(JSON.stringify({ name, passphrase, keep: false }));
  });
}

test("of one name no more is looked at from many addresses than from one, and no other name is held up", {
  timeout: LONG_MS,
}, async () => {
  const told: number[] = [];
  for (let at = 0; at < GUESSES; at++)
    told.push(await triedFrom(`127.0.${1 + (at % 7)}.${1 + (at % 200)}`, "Dell H.", `guess number ${at}`));
  expect(told.filter((status) => status !== 429)).toEqual(Array(20).fill(401));
  // A colleague beside them, at an address of their own, is looked at.
  expect(await triedFrom("127.0.9.1", "Elm K.", "whatever it was")).toBe(401);
});
