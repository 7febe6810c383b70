import { z } from "zod";
import { count, done, id, instant, line, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** Of a code with which a person comes in on one shared device. */
export const LEAST_CODE = 4;
const MOST_CODE = 8;
const code = z
  .string()
  .regex(/^\d+$/, "Figures only.")
  .min(LEAST_CODE, `At least ${LEAST_CODE} figures.`)
  .max(MOST_CODE, `At most ${MOST_CODE} figures.`);

/** A device that several people use, as it stands at the door: who has a code on it, and when it locks by itself. */
export const sharedDevice = z.object({
  name: z.string(),
  lockMinutes: count,
  people: z.array(z.object({ id, name: z.string() })),
});

/** Lets the device that asks in, once: from then on people come in on it by a code. The same once more is told as success. */
export const letDeviceIn = {
  method: "POST",
  path: "/api/devices",
  may: { by: "lead" },
  trail: { did: "device" },
  body: z.object({ id, name: line(60) }),
  answer: done,
} as const satisfies Endpoint;

/** The devices that were let in, with how many people have a code on each, the one used last first. */
export const listDevices = {
  method: "GET",
  path: "/api/devices",
  may: { by: "lead" },
  answer: z.object({
    lockMinutes: count,
    devices: z.array(
      z.object({
        id,
        name: z.string(),
        letInAt: instant,
        usedAt: instant.nullable(),
        people: count,
        here: z.boolean(),
      }),
    ),
  }),
} as const satisfies Endpoint;

/** Ends a device: its codes are worth nothing from now on. Said again it changes nothing. */
export const endDevice = {
  method: "DELETE",
  path: "/api/devices/:id",
  may: { by: "lead" },
  trail: { did: "device" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/** After how many minutes without a touch shared devices lock. Made from an older version: both (409). */
export const setLock = {
  method: "PUT",
  path: "/api/school/lock",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, lockMinutes: z.number().int().min(1).max(240) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Sets one's code on the shared device that asks; on any other it is worth nothing. Refused (422) on a device that is not shared. */
export const setMyCode = {
  method: "PUT",
  path: "/api/me/code",
  may: { by: "assistant" },
  body: z.object({ code }),
  answer: done,
} as const satisfies Endpoint;

/**
 * Comes in by one's code on a shared device. Refused (401) when it is wrong; after five wrong ones (429) for a while, and one's
 * passphrase still works.
 */
export const signInByCode = {
  method: "POST",
  path: "/api/sign-in/code",
  may: { by: "door" },
  body: z.object({ memberId: id, code }),
  answer: done,
} as const satisfies Endpoint;
