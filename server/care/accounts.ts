import type { House } from "../house.ts";
import type { OpenStore } from "../store/opened.ts";
import * as t from "../store/tables/accounts.ts";

// Accounts are in no backup: a file that someone takes home lets no one in. They are carried where one place takes over from
// another: by `npm run move`, and where a backup is put back over a folder.

/** Each behind those that it refers to. What is between two steps of a sign-in, and wrong guesses, stay behind. */
const carried = [t.secrets, t.user, t.account, t.session, t.twoFactor, t.passkeys] as const;

/** All accounts of a store, by table in the order of `carried`. */
export type CarriedAccounts = readonly (readonly Record<string, unknown>[])[];

/** Reads the accounts of a store, to be put into another. */
export async function accountsOf(store: OpenStore): Promise<CarriedAccounts> {
  const all: Record<string, unknown>[][] = [];
  for (const table of carried) all.push(await store.accounts.select().from(table));
  return all;
}

/**
 * Puts accounts into a store that has none, and parts its members from accounts that it does not have: for them the lead makes
 * a new link.
 * @param accounts undefined for none
 */
export async function putAccounts(
  store: OpenStore,
  house: House,
  schoolIds: readonly string[],
  accounts: CarriedAccounts = [],
): Promise<void> {
  await store.accounts.transaction(async (tx) => {
    for (const [at, rows] of accounts.entries()) {
      const table = carried[at];
      if (table && rows.length > 0)
        await tx
          .insert(table)
          .values(rows as never)
          .onConflictDoNothing();
    }
  });
  const there = await store.accounts.select({ id: t.user.id }).from(t.user);
  for (const schoolId of schoolIds) await house.as({ schoolId }).people.keepAccounts(there.map(({ id }) => id));
}
