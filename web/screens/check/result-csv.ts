import { kinds } from "#core/checks";
import type { CheckTold } from "./told.ts";

/** One line an item: who, which check, what was asked, how it was answered, what was said, what that says. */
export function resultRows(
  children: readonly { readonly name: string; readonly checks: readonly CheckTold[] }[],
): readonly Readonly<Record<string, string>>[] {
  return children.flatMap(({ name, checks }) =>
    checks.flatMap(({ check, result }) =>
      result.firsts.map(({ item, shows, heard, answer, told }) => ({
        child: name,
        check: kinds[check.kind].name,
        day: answer.day,
        asked: shows,
        item,
        outcome: answer.outcome,
        heard: heard ?? "",
        seconds: answer.ms === null ? "" : (answer.ms / 1000).toFixed(1),
        failed: told.failed.map((at) => told.units[at]?.gpc ?? "").join(" "),
        says: told.says.join(" "),
        markedBy: answer.markedBy,
      })),
    ),
  );
}
