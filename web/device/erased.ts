import { listErased } from "#contract";
import { call } from "./api.ts";
import { outbox } from "./outbox.ts";
import { forgetAnswers, forgetNaming } from "./pages.ts";

/** How many erased children this device has heard of. */
const HEARD = "keen-erased";

/**
 * Drops what this device holds of children who were erased, wherever that was done: answers of the server, open checks, drafts
 * and marks, sent or not.
 * @param count how many were ever erased, as the server says; the same as heard of before does nothing
 */
export async function dropErased(count: number): Promise<void> {
  if (Number(localStorage.getItem(HEARD) ?? 0) === count) return;
  const { ids } = await call(listErased, {});
  await forgetAnswers();
  await forgetNaming(ids);
  await outbox.forgetChildren(ids);
  // Last: a device that goes off in the middle does it again.
  localStorage.setItem(HEARD, String(ids.length));
}
