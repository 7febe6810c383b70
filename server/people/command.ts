import type { House } from "../house.ts";
import type { OpenStore } from "../store/opened.ts";
import { addSchool, listSchools } from "./schools.ts";

const usage = `Say what to do:
  npm run school -- add NAME    makes another school on this server
  npm run school -- list        tells which schools there are
The data folder is .keen-school, that of npm start; another by KEEN_DATA, a PostgreSQL server by DATABASE_URL.`;

/**
 * What `npm run school` does, in words.
 * @throws CannotMake when a school cannot be made
 */
export async function schoolCommand(store: OpenStore, house: House, words: readonly string[]): Promise<string> {
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
  return usage;
}
