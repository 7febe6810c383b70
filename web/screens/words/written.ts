import { refreshAll, wordsOfError } from "#web/device/api.ts";
import { toast } from "#web/parts/toast.tsx";

/** Writes what the school says of a word, and says what went wrong. @returns whether it is written */
export async function written(write: () => Promise<unknown>): Promise<boolean> {
  try {
    await write();
    await refreshAll();
    return true;
  } catch (error) {
    toast.error(wordsOfError(error));
    return false;
  }
}
