import type { House } from "../house.ts";
import type { Door } from "./door.ts";

/** So many schools are told at a start; for others `npm run school -- invite` makes the address. */
const MOST_TOLD = 3;

/**
 * The one-time address of the set-up of a school, in which no lead can sign in yet. The ones that were made before end.
 * @param origin of the server, `http://localhost:4310`
 */
async function setUpAddress(house: House, schoolId: string, origin: string): Promise<string> {
  const { token } = await house.as({ schoolId }).invitations.invite(null, new Date());
  return `${origin}/invited/${token}`;
}

/** What the program says at its start of schools that no one has set up, a line each. */
export async function setUpAddresses(server: {
  readonly door: Door;
  readonly house: House;
  readonly origin: string;
}): Promise<string[]> {
  const { door, house, origin } = server;
  const lines: string[] = [];
  for (const schoolId of await door.schools()) {
    const { ready, demo, name } = await house.as({ schoolId }).people.entrance();
    if (ready || demo) continue;
    if (lines.length >= MOST_TOLD) return lines;
    const address = await setUpAddress(house, schoolId, origin);
    lines.push(`Set ${name || "your school"} up, once, within seven days: ${address}`);
  }
  return lines;
}
