import type { FieldValues, Path, UseFormSetError } from "react-hook-form";
import { NoLine, Refused, refreshAll, wordsOfError } from "./api.ts";

/**
 * Runs a form's write. On success everything on the screen is read again; on a refusal each field shows the
 * server's words, and what belongs to no field stands under the form as `root`.
 * @returns true when it was written
 */
export async function submit<T extends FieldValues>(
  write: () => Promise<unknown>,
  setError: UseFormSetError<T>,
  fields: readonly Path<T>[],
): Promise<boolean> {
  try {
    await write();
    await refreshAll();
    return true;
  } catch (error) {
    let placed = false;
    if (error instanceof Refused) {
      for (const { field, says } of error.problem.fields) {
        const known = fields.find((name) => name === field);
        if (known) {
          setError(known, { message: says });
          placed = true;
        }
      }
    }
    const kept = error instanceof NoLine ? " What you typed is still here." : "";
    if (!placed) setError("root", { message: `${wordsOfError(error)}${kept}` });
    return false;
  }
}
