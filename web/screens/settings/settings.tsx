import { type ReactNode, useRef, useState } from "react";
import { type CheckSettingsBody, getSchool, setCheckSettings } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { useIsAtLeast, useMe } from "#web/device/me.ts";
import { LONGEST_MARK_WAIT, useHand, useLetterKeys, useMarker, useMarkWait } from "#web/device/settings.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { BackupPanel } from "./backup.tsx";
import { LeaversPanel } from "./leavers.tsx";
import { ReadingAims } from "./reading.tsx";
import { SchoolPanel } from "./school.tsx";
import { SecurePanel } from "./secure.tsx";

const letterShapes: Readonly<Record<CheckSettingsBody["letterShapes"], string>> = {
  written: "as they are written by hand",
  printed: "as books print them",
};
const answerForms: Readonly<Record<CheckSettingsBody["answerForm"], string>> = {
  sound: "the sound",
  nameSound: "letter name and sound",
  nameKeywordSound: "name, keyword and sound",
};
const severalSounds: Readonly<Record<CheckSettingsBody["severalSounds"], string>> = {
  all: "all that the child knows",
  any: "any taught sound will do",
  word: "the one that a word shows",
};
const exceptionWays: Readonly<Record<CheckSettingsBody["exceptionWay"], string>> = {
  sounded: "sounded, the unexpected part marked",
  wholes: "read and spelled as wholes",
};
const choicesOf = <T extends string>(says: Readonly<Record<T, string>>) => Object.entries(says) as [T, string][];

/** Where teachers differ: what this school does, and how this device is held. */
export function Screen() {
  const { data, error } = useAsk(getSchool, {});
  const lead = useIsAtLeast("lead");
  const signedIn = useMe().data?.me?.way === "signed-in";
  const [hand, setHand] = useHand();
  const [marker, setMarker] = useMarker();
  const [wait, setWait] = useMarkWait();
  const [letters, setLetters] = useLetterKeys();
  /** Of what was saved here last: two choices can follow each other faster than the school is read again. */
  const saved = useRef(0);
  const [chosen, setChosen] = useState<Partial<CheckSettingsBody>>({});
  const checks = data && { ...data.checks, ...chosen };
  const save = async (change: Partial<CheckSettingsBody>) => {
    if (!checks || !data) return;
    setChosen({ ...chosen, ...change });
    try {
      const done = await saveOver({
        content: { checks: { ...checks, ...change } },
        onto: Math.max(data.version, saved.current),
        send: (content, version) => call(setCheckSettings, { body: { ...content, version } }),
        says: ({ checks: one }) => ({
          "What a child says to a card": answerForms[one.answerForm],
          "One spelling, several sounds": severalSounds[one.severalSounds],
          "Exception words": exceptionWays[one.exceptionWay],
          "Made-up words": one.madeUp ? "used" : "not used",
          "Letters that children read": letterShapes[one.letterShapes],
          "Spoken words": one.deviceVoice ? "by the device's voice too" : "by the adult",
          "Slow means": one.slowAfter === 0 ? "only what the adult marks so" : `over ${one.slowAfter} seconds`,
        }),
      });
      if (done) saved.current = done.version;
      await refreshAll();
      setChosen({});
      if (done) toast("Saved. Checks that begin now follow it; so do all results.");
    } catch (problem) {
      setChosen({});
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Page
      place="Settings"
      title="Settings"
      actions={
        <>
          <ButtonLink to="/settings/mine">My sign-in</ButtonLink>
          {lead && <ButtonLink to="/settings/people">People</ButtonLink>}
        </>
      }
      about="Teachers differ, with good reasons. Each of these is the school's to choose; none is the right one."
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {checks && data && (
        <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
          <div className="flex flex-col gap-4">
            {lead ? (
              <Panel title="Checks">
                <div className="flex flex-col gap-6">
                  <Question
                    title="What a child says to a card"
                    why="The sound alone is quickest and is what blending needs. Name and keyword give a hold to those who mix up letters."
                    value={checks.answerForm}
                    onChoose={(answerForm) => save({ answerForm })}
                    choices={choicesOf(answerForms)}
                  />
                  <Question
                    title="One spelling, several sounds"
                    why="All of them shows most, with one card a spelling. Any one is quickest. In a word each is asked by itself, and the child need not think which is meant."
                    value={checks.severalSounds}
                    onChoose={(way) => save({ severalSounds: way })}
                    choices={choicesOf(severalSounds)}
                  />
                  <Question
                    title="Exception words"
                    why="Sounded out with the unexpected part marked, they join what is taught. As wholes, they are there at once when a text needs them."
                    value={checks.exceptionWay}
                    onChoose={(exceptionWay) => save({ exceptionWay })}
                    choices={choicesOf(exceptionWays)}
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
                    title="Letters that children read"
                    why="Written letters look as children write them, so that what they read and what they write is the same. Printed letters, with the a of books, are those that they meet in every other text."
                    value={checks.letterShapes}
                    onChoose={(letterShapes) => save({ letterShapes })}
                    choices={choicesOf(letterShapes)}
                  />
                  <Question
                    title="Spoken words"
                    why="What children only hear, to write it or to say where a sound is, the adult says. A device that has a voice of its own can say it too, at a press; each device can be silenced."
                    value={String(checks.deviceVoice)}
                    onChoose={(on) => save({ deviceVoice: on === "true" })}
                    choices={choicesOf({ false: "by the adult", true: "by the device's voice too" })}
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
            ) : (
              <p className="text-soft">How the school checks and measures is for its lead to choose.</p>
            )}
            {lead && <LeaversPanel school={data} />}
            {lead && <BackupPanel school={data} />}
          </div>
          <div className="flex flex-col gap-4">
            {lead && <SchoolPanel key={`${data.name} ${data.timeZone}`} school={data} />}
            {lead && <SecurePanel key={JSON.stringify(data.secureWhen)} school={data} />}
            {lead && <ReadingAims school={data} />}
            <Panel title="This device">
              <div className="flex flex-col gap-6">
                {!signedIn && (
                  <TextField
                    label="Marks are by"
                    hint="The name that marks made on this device carry."
                    value={marker}
                    maxLength={60}
                    onChange={(event) => setMarker(event.target.value)}
                    onBlur={() => marker.trim() === "" && setMarker("Teacher")}
                  />
                )}
                <Question
                  title="A card takes a mark"
                  why="A held key or a second tap would else mark a card that no one has seen. It moves a little when a mark came too soon."
                  value={String(wait)}
                  onChoose={(ms) => setWait(Number(ms))}
                  choices={[
                    ["0", "at once"],
                    ["150", "after 0.15 seconds"],
                    ["300", "after 0.3 seconds"],
                    ["500", "after half a second"],
                    [String(LONGEST_MARK_WAIT), "after 0.7 seconds"],
                  ]}
                />
                <Question
                  title="Letters as keys"
                  why="A single letter does something here, for example U takes a mark back. Those who dictate, or whose keys are pressed by accident, do better without."
                  value={letters}
                  onChoose={setLetters}
                  choices={[
                    ["on", "a letter alone"],
                    ["alt", "Alt and a letter"],
                    ["off", "no letters; figures, arrows, Enter and Space stay"],
                  ]}
                />
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
              </div>
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
