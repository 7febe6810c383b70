import { type ReactNode, useState } from "react";
import { toast } from "sonner";
import { type CheckSettingsBody, getSchool, setCheckSettings } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/app/api.ts";
import { useHand } from "#web/app/device.ts";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { ReadingAims } from "./reading.tsx";

/** Where teachers differ: what this school does, and how this device is held. */
export function Screen() {
  const { data, error } = useAsk(getSchool, {});
  const [hand, setHand] = useHand();
  const [chosen, setChosen] = useState<Partial<CheckSettingsBody>>({});
  const checks = data && { ...data.checks, ...chosen };
  const save = async (change: Partial<CheckSettingsBody>) => {
    if (!checks) return;
    setChosen({ ...chosen, ...change });
    try {
      await call(setCheckSettings, { body: { ...checks, ...change } });
      await refreshAll();
      toast("Kept. Checks that begin now follow it; so do all results.");
    } catch (problem) {
      setChosen({});
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Page
      place="Settings"
      title="Settings"
      about="Teachers differ, with good reasons. Each of these is the school's to choose; none is the right one."
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {checks && data && (
        <div className="grid items-start gap-4 lg:grid-cols-2">
          <Panel title="Checks">
            <div className="flex flex-col gap-6">
              <Question
                title="What a child says to a card"
                why="The sound alone is quickest and is what blending needs. Name and keyword give a hold to those who mix up letters."
                value={checks.answerForm}
                onChoose={(answerForm) => save({ answerForm })}
                choices={[
                  ["sound", "the sound"],
                  ["nameSound", "letter name and sound"],
                  ["nameKeywordSound", "name, keyword and sound"],
                ]}
              />
              <Question
                title="Exception words"
                why="Sounded out with the unexpected part marked, they join what is taught. As wholes, they are there at once when a text needs them."
                value={checks.exceptionWay}
                onChoose={(exceptionWay) => save({ exceptionWay })}
                choices={[
                  ["sounded", "sounded, the unexpected part marked"],
                  ["wholes", "read and spelled as wholes"],
                ]}
              />
              <Question
                title="Made-up words"
                why="No child can know them by heart, so they show blending alone. Some find them pointless for children who are new to English."
                value={checks.madeUp ? "used" : "not"}
                onChoose={(used) => save({ madeUp: used === "used" })}
                choices={[
                  ["used", "used"],
                  ["not", "not used"],
                ]}
              />
              <Question
                title="Slow means"
                why="A right answer that takes longer counts as right but slow, which is not yet secure. An adult can mark slow by hand as well."
                value={String(checks.slowAfter)}
                onChoose={(seconds) => save({ slowAfter: Number(seconds) })}
                choices={[
                  ...(["2", "3", "4", "5"].includes(String(checks.slowAfter)) || checks.slowAfter === 0
                    ? []
                    : [[String(checks.slowAfter), `over ${checks.slowAfter} seconds`] as const]),
                  ["2", "over 2 seconds"],
                  ["3", "over 3 seconds"],
                  ["4", "over 4 seconds"],
                  ["5", "over 5 seconds"],
                  ["0", "only what the adult marks so"],
                ]}
              />
            </div>
          </Panel>
          <div className="flex flex-col gap-4">
            <ReadingAims school={data} />
            <Panel title="This device">
              <Question
                title="Marking thumb on an upright tablet"
                why="The marks stand at that side, within its reach."
                value={hand}
                onChoose={(chosen) => setHand(chosen as "left" | "right")}
                choices={[
                  ["right", "right"],
                  ["left", "left"],
                ]}
              />
            </Panel>
          </div>
        </div>
      )}
    </Page>
  );
}

function Question<T extends string>({
  title,
  why,
  value,
  choices,
  onChoose,
}: {
  title: string;
  why: ReactNode;
  value: T;
  choices: readonly (readonly [T, string])[];
  onChoose: (value: T) => void;
}) {
  return (
    <fieldset>
      <legend className="font-semibold">{title}</legend>
      <p className="mb-1.5 text-sm text-soft">{why}</p>
      <div className="flex flex-col gap-1">
        {choices.map(([id, name]) => (
          <label key={id} className="flex cursor-pointer items-center gap-2">
            <input
              type="radio"
              name={title}
              checked={value === id}
              onChange={() => onChoose(id)}
              className="accent-leaf"
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
