import type { House } from "../house.ts";
import type { OpenStore } from "../store/opened.ts";
import { addSchool, CannotMake, listSchools } from "./schools.ts";

const usage = `Say what to do:
  npm run school -- add NAME    makes another school on this server
  npm run school -- list        tells which schools there are
  npm run school -- link        makes the address with which the first school is set up, or its lead let in again
  npm run school -- link SLUG   the same for another one
The data folder is .keen-school, that of npm start; another by KEEN_DATA, a PostgreSQL server by DATABASE_URL.`;

/**
 * What `npm run school` does, in words.
 * @param origin where the server is reached
 * @throws CannotMake when a school cannot be made, or is not there
 */
export async function schoolCommand(
  store: OpenStore,
  house: House,
  words: readonly string[],
  origin = "http://localhost:4310",
): Promise<string> {
  const [what, ...rest] = words;
  if (what === "add") {
    const { id, slug } = await addSchool(store.owner, rest.join(" "));
    await house.as({ schoolId: id }).orders.ship();
    return `The school is made. Its address is http://${slug}.localhost:4310 (or the port that the server has).`;
  }
  if (what === "list") {
    const schools = await listSchools(store.owner);
    return schools.map(({ slug, name }) => `${slug}.localhost  ${name || "(not named yet)"}`).join("\n");
  }
  if (what === "link") return linkFor(store, house, rest[0], origin);
  return usage;
}

/** For whoever can reach the data anyway: a lead who is locked out, with no other lead, has no one else to ask. */
async function linkFor(store: OpenStore, house: House, slug: string | undefined, origin: string): Promise<string> {
  const all = await listSchools(store.owner);
  const school = slug === undefined ? all[0] : all.find((one) => one.slug === slug);
  if (!school) throw new CannotMake(`There is no school ${slug ?? ""}. See which there are: npm run school -- list`);
  const { people, invitations } = house.as({ schoolId: school.id });
  const lead = (await people.list()).find((one) => one.role === "lead" && one.accountId !== null);
  const { token } = await invitations.invite(lead?.id ?? null, new Date());
  const host = new URL(origin);
  if (slug !== undefined) host.hostname = `${slug}.${host.hostname}`;
  return `${lead ? `With it ${lead.name} chooses a new passphrase` : "With it the school is set up"}, once, within seven days: ${host.origin}/invited/${token}`;
}
