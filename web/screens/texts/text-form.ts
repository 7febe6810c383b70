import { type TextContentBody, textContent } from "#contract";
import { problemsOf, type TextProblem } from "#core/reading";
import { useBoxDraft } from "#web/device/box-draft.ts";

/** A text as it is being written: every field may be half done. */
export interface TextForm {
  /** The version that it began from; 0 for a new text. */
  readonly version: number;
  readonly title: string;
  readonly body: string;
  readonly exceptions: readonly string[];
  readonly questions: readonly QuestionForm[];
  readonly words: readonly { readonly word: string; readonly means: string }[];
}

export interface QuestionForm {
  readonly kind: TextContentBody["questions"][number]["kind"];
  readonly depth: TextContentBody["questions"][number]["depth"];
  readonly ask: string;
  /** Several right answers stand apart by semicolons. */
  readonly answers: string;
  readonly where: string;
}

export const emptyQuestion: QuestionForm = { kind: "who", depth: "found", ask: "", answers: "", where: "" };

export function formOf(content: TextContentBody, version: number): TextForm {
  return {
    ...content,
    version,
    questions: content.questions.map((one) => ({ ...one, answers: one.answers.join("; ") })),
  };
}

/** The text that a form stands for: empty lines of its lists fall away, nothing else is changed. */
function contentOf({ title, body, exceptions, questions, words }: TextForm): unknown {
  return {
    title,
    exceptions,
    body: body
      .replace(/\r\n?/g, "\n")
      .replace(/\n{3,}/g, "\n\n")
      .trim(),
    questions: questions
      .filter((one) => one.ask.trim() || one.answers.trim())
      .map((one) => ({
        ...one,
        where: one.where.trim(),
        answers: one.answers
          .split(";")
          .map((answer) => answer.trim())
          .filter(Boolean),
      })),
    words: words.filter((one) => one.word.trim() || one.means.trim()),
  };
}

export interface Judged {
  /** The text, when it can be kept. */
  readonly content: TextContentBody | undefined;
  readonly problems: readonly TextProblem[];
}

/** What a form would be kept as, or what keeps it from that. */
export function judgeForm(form: TextForm): Judged {
  const problems = problemsOf({
    ...form,
    questions: form.questions.map((one) => ({ ...one, where: one.where.trim(), answers: [] })),
  });
  if (problems.some((one) => one.stops)) return { content: undefined, problems };
  const read = textContent.safeParse(contentOf(form));
  if (read.success) return { content: read.data, problems };
  const [first] = read.error.issues;
  const [list, at, field] = first?.path ?? [];
  const place = list === "questions" ? "Question" : list === "words" ? "Meaning" : String(list ?? "");
  const says = `${place}${typeof at === "number" ? ` ${at + 1}` : ""}${field ? `, ${String(field)}` : ""}: ${first?.message ?? ""}`;
  return { content: undefined, problems: [...problems, { stops: true, says }] };
}

/** The form of a text, kept on this device until the server has it. */
export function useTextForm(textId: string, make: () => TextForm) {
  return useBoxDraft<TextForm>(`text ${textId}`, {
    make,
    read: (kept) => ({ ...make(), ...(kept as Partial<TextForm>) }),
  });
}
