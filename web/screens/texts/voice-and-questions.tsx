import type { ReadingBody, TextView } from "#contract";
import { Panel } from "#web/parts/page.tsx";
import { type VoiceKey, voiceNames, voiceSteps } from "./marking.ts";

/** How it sounded, in four things; quick to give, and no one has to. */
export function Voice({
  voice,
  onChange,
}: {
  voice: ReadingBody["voice"];
  onChange: (voice: ReadingBody["voice"]) => void;
}) {
  return (
    <Panel title="Voice, if you like">
      <div className="flex flex-col gap-2">
        {(Object.keys(voiceSteps) as VoiceKey[]).map((key) => (
          <fieldset key={key}>
            <legend className="text-sm font-semibold">{voiceNames[key]}</legend>
            <div className="flex flex-wrap items-center gap-1.5">
              {voiceSteps[key].map((words, at) => (
                <button
                  key={words}
                  type="button"
                  title={words}
                  aria-label={`${at + 1}: ${words}`}
                  aria-pressed={voice[key] === at + 1}
                  onClick={() => onChange({ ...voice, [key]: voice[key] === at + 1 ? null : at + 1 })}
                  className={`size-9 rounded-full border ${voice[key] === at + 1 ? "border-leaf bg-leaf-pale font-semibold" : "border-line"}`}
                >
                  {at + 1}
                </button>
              ))}
              <span className="text-sm text-soft">
                {voice[key] === null ? "" : voiceSteps[key][(voice[key] ?? 1) - 1]}
              </span>
            </div>
          </fieldset>
        ))}
      </div>
    </Panel>
  );
}

/** The questions of the text: right, partly or not, with or without looking back. */
export function Understanding({
  questions,
  given,
  onChange,
}: {
  questions: TextView["questions"];
  given: ReadingBody["understanding"];
  onChange: (given: ReadingBody["understanding"]) => void;
}) {
  const put = (ask: string, change: Partial<ReadingBody["understanding"][number]>) => {
    const before = given.find((one) => one.ask === ask) ?? { ask, mark: "right" as const, lookedBack: false };
    onChange([...given.filter((one) => one.ask !== ask), { ...before, ...change }]);
  };
  return (
    <Panel title="Questions">
      <ul className="flex flex-col gap-3">
        {questions.map(({ ask, answers }) => {
          const mine = given.find((one) => one.ask === ask);
          return (
            <li key={ask}>
              <p>
                {ask} <span className="text-sm text-soft">{answers.join(" · ")}</span>
              </p>
              <div className="mt-0.5 flex flex-wrap gap-1.5">
                {(["right", "partly", "not"] as const).map((mark) => (
                  <button
                    key={mark}
                    type="button"
                    aria-label={`${ask} ${mark}`}
                    aria-pressed={mine?.mark === mark}
                    onClick={() => put(ask, { mark })}
                    className={`min-h-9 rounded-full border px-3 text-sm ${mine?.mark === mark ? "border-leaf bg-leaf-pale font-semibold" : "border-line"}`}
                  >
                    {mark}
                  </button>
                ))}
                <label className="flex items-center gap-1 text-sm">
                  <input
                    type="checkbox"
                    checked={mine?.lookedBack ?? false}
                    onChange={(event) => put(ask, { lookedBack: event.target.checked })}
                    className="accent-leaf"
                  />
                  looked back
                </label>
              </div>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
