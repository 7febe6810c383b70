import type { Teaching, TextMarks } from "./use-teach.ts";

/** Texts that were read: those of which words were marked, and those that someone got without one. */
export function textsRead(
  { readings, state, parts }: Pick<Teaching, "readings" | "state" | "parts">,
  texts: readonly TextMarks["text"][],
): readonly TextMarks[] {
  const got = state.marks.filter(
    ({ part, turn, outcome, together }) =>
      parts[part]?.kind === "text" && outcome === "got" && !together && !readings[`${part} ${turn}`],
  );
  return [
    ...Object.values(readings).filter(({ marks }) => marks.length > 0),
    ...got.flatMap(({ id, childId, item }): TextMarks[] => {
      const text = texts.find(({ title }) => title === item);
      return text ? [{ readingId: id, childId, text, marks: [] }] : [];
    }),
  ];
}
