import { expect, test } from "vitest";
import { openAccounts } from "../people/accounts.ts";
import { listSchools } from "../people/schools.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { accountsOf, putAccounts } from "./accounts.ts";
import { tablesInOrder } from "./backup.ts";

const passphrase = "otters like cold porridge";
const member = { name: "Mrs Quill", role: "lead" as const, classIds: [], groupIds: [], typedNames: [] };
const memberId = crypto.randomUUID();

async function told({ store, school }: TestHouse): Promise<{ signsIn: boolean; ready: boolean }> {
  const { signIn } = await openAccounts(store.accounts, "http://localhost", store.signals);
  const accountId = (await school.people.accountNamed(member.name))?.accountId ?? undefined;
  const signsIn = await signIn({ accountId, passphrase, keep: true, headers: {} }).then(
    () => true,
    () => false,
  );
  return { signsIn, ready: (await school.people.entrance()).ready };
}

test("who signs in still does where one place takes over from another; a backup alone lets no one in", async () => {
  const [from, moved, restored] = [await openTestHouse(), await openTestHouse(), await openTestHouse()];
  const accounts = await openAccounts(from.store.accounts, "http://localhost", from.store.signals);
  const accountId = await accounts.make();
  await accounts.reset(accountId, passphrase);
  // What a backup puts back: the members, and which account each is.
  for (const { school } of [from, moved, restored]) {
    await school.people.add(memberId, member);
    await school.people.setAccount(memberId, accountId);
  }
  const carried = await accountsOf(from.store);
  const idsOf = async ({ store }: TestHouse) => (await listSchools(store.owner)).map(({ id }) => id);
  await putAccounts(moved.store, moved.all, await idsOf(moved), carried);
  await putAccounts(restored.store, restored.all, await idsOf(restored));
  expect(await told(from)).toEqual({ signsIn: true, ready: true });
  expect(await told(moved)).toEqual({ signsIn: true, ready: true });
  expect(await told(restored)).toEqual({ signsIn: false, ready: false });
  for (const name of ["people", "passphrases", "sign_ins", "secrets"]) expect(tablesInOrder()).not.toContain(name);
  for (const house of [from, moved, restored]) await house.close();
});
