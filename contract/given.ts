import { z } from "zod";
import { byId, done, id } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** The person to whom something is given; null for whoever comes to it. */
export const givenTo = z.object({ id, name: z.string() }).nullable();

/**
 * To whom an open check or a session is given, and those who could be: of a check the leads, and whoever has each of its
 * children; of a session everyone who may teach, since whoever is given one may see its group from then until a week after it.
 */
export const getGiven = {
  method: "GET",
  path: "/api/desks/:id/given",
  may: { by: "teacher", theirs: { "params.id": "desk" } },
  params: byId,
  answer: z.object({ to: id.nullable(), colleagues: z.array(z.object({ id, name: z.string() })) }),
} as const satisfies Endpoint;

/** Gives a check or a session to one person, or (null) to whoever comes to it. Refused (422) for someone who could not do it. */
export const give = {
  method: "PUT",
  path: "/api/desks/:id/given",
  may: { by: "teacher", theirs: { "params.id": "desk" } },
  trail: { did: "given", about: "params.id" },
  params: byId,
  body: z.object({ to: id.nullable() }),
  answer: done,
} as const satisfies Endpoint;
