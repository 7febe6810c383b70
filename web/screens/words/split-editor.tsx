import { useState } from "react";
import { type OwnSplit, removeSplit, saveSplit } from "#contract";
import { findCorrespondence, type Gpc, ipa, showGrapheme, sounds, soundsOfGrapheme, splitGpc } from "#core/phonics";
import { listed } from "#core/saying";
import { cutBy, keyOf, type Lexicon, spellOut, unitOf, type WordSplit } from "#core/words";
import { call } from "#web/device/api.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { written } from "./written.ts";

interface EditorWanted {
  readonly word: string;
  readonly reading: WordSplit;
  /** The school's own split of this word, if it has one. */
  readonly own: OwnSplit | undefined;
  readonly lexicon: Lexicon;
  readonly onClose: () => void;
}

/** Puts the split of a word right by hand; what is kept counts everywhere in this school. */
export function SplitEditor({ word, reading, own, lexicon, onClose }: EditorWanted) {
  const [typed, setTyped] = useState(reading.units.map((unit) => unit.grapheme).join(" "));
  const [chosen, setChosen] = useState<readonly string[]>(reading.units.map((unit) => unit.sound));
  const [reason, setReason] = useState(own?.reason ?? "");
  const [newSplitId] = useState(newId);
  const first = reading.units.map((unit) => unit.grapheme).join(" ");
  const saved = useUnsaved(typed !== first || reason !== (own?.reason ?? ""));
  const graphemes = typed
    .toLowerCase()
    .replace(/[-–](?=e\b)/g, "_")
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  const units = graphemes.map((grapheme, at) => unitOf(`${grapheme}=${soundFor(grapheme, chosen[at])}`));
  const letters = keyOf(word)
    .normalize("NFD")
    .replace(/[^a-z]/g, "");
  const spelled = spellOut(units);
  const unknown = units.find((unit) => !findCorrespondence(unit.gpc));
  const problem =
    spelled !== letters
      ? `These units spell “${spelled}”. Every letter of “${letters}” belongs to exactly one.`
      : unknown
        ? `${showGrapheme(unknown.grapheme)} is not a spelling this tool knows for that sound. Join it with a neighbour, or choose another sound.`
        : undefined;

  const cut = problem === undefined ? cutBy(letters, gpcsOf(units), lexicon.ownUnits) : [];

  const save = async () => {
    const body = { text: word, units: units.map((unit) => unit.gpc), reason };
    if (!(await written(() => call(saveSplit, { params: { id: own?.id ?? newSplitId }, body })))) return;
    saved();
    toast("Saved for your school. It counts everywhere from now on.");
    onClose();
  };
  const remove = async ({ id, text, units: gone, reason: why }: OwnSplit) => {
    if (!(await written(() => call(removeSplit, { params: { id } })))) return;
    saved();
    onClose();
    toastWithUndo(`Your school's split of ${text} is removed.`, () =>
      written(() => call(saveSplit, { params: { id }, body: { text, units: [...gone], reason: why } })),
    );
  };

  return (
    <Sheet open onClose={onClose} title={`How ${word} splits`}>
      <div className="flex flex-col gap-4">
        <p className="text-5xl leading-[1.5]" aria-live="polite">
          {spelled === letters ? (
            <BracketWord text={word} units={units} />
          ) : (
            <span className="font-child">{word}</span>
          )}
        </p>
        <TextField
          label="Units, with a space between"
          hint="A final e that works with a vowel is written with the vowel: c a_e k."
          value={typed}
          problem={problem}
          className="font-child text-lg"
          autoFocus
          onChange={(event) => setTyped(event.target.value)}
        />
        <div className="flex flex-wrap gap-2">
          {units.map((unit, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a unit is its place in the word
            <div key={at} className="w-28">
              <Choice
                label={`Sound of ${showGrapheme(unit.grapheme)}`}
                value={unit.sound}
                onChange={(event) =>
                  setChosen(graphemes.map((one, i) => (i === at ? event.target.value : soundFor(one, chosen[i]))))
                }
              >
                {optionsFor(unit.grapheme).map((sound) => (
                  <option key={sound} value={sound}>
                    {ipa(sound)}
                  </option>
                ))}
              </Choice>
            </div>
          ))}
        </div>
        {cut.length > 0 && <p role="status">{saysCut(cut)}</p>}
        <TextField
          label="Why (for colleagues)"
          value={reason}
          maxLength={200}
          onChange={(event) => setReason(event.target.value)}
        />
        <div className="flex flex-wrap justify-between gap-2 border-t border-line pt-3">
          {own ? <Button onClick={() => remove(own)}>Go back to the word list's split</Button> : <span />}
          <div className="flex gap-2">
            <Button onClick={onClose}>Leave it</Button>
            <Button shape="main" disabled={problem !== undefined} onClick={save}>
              Save for our school
            </Button>
          </div>
        </div>
      </div>
    </Sheet>
  );
}

const gpcsOf = (units: readonly { readonly gpc: string }[]) => units.map(({ gpc }) => gpc);

/** That a split stands against what the school teaches as one. */
export function saysCut(units: readonly Gpc[]): string {
  const shown = units.map((unit) => showGrapheme(splitGpc(unit).grapheme));
  return `Your school teaches ${listed(shown)} as one unit. Split like this, ${units.length === 1 ? "it does" : "they do"} not count in this word.`;
}

/** The sounds a spelling may have; all sounds for one that the tool does not know. */
function optionsFor(grapheme: string): readonly string[] {
  const known = soundsOfGrapheme(grapheme).map((entry) => entry.sound);
  return known.length > 0 ? known : sounds.map((sound) => sound.key);
}

function soundFor(grapheme: string, wished: string | undefined): string {
  const options = optionsFor(grapheme);
  return wished && options.includes(wished) ? wished : (options[0] ?? "");
}
