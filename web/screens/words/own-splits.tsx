import { useState } from "react";
import { getSchool, type OwnSplit, setAccent } from "#contract";
import { accents } from "#core/phonics";
import { cutBy, type Lexicon, ownEntry, split, unitOf, writeEntry } from "#core/words";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { usePictures } from "#web/device/own-pictures.ts";
import { Button } from "#web/parts/button.tsx";
import { download } from "#web/parts/download.ts";
import { Choice } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Empty } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { SplitEditor, saysCut } from "./split-editor.tsx";
import type { ToolWanted } from "./tool.ts";
import { OwnAges } from "./word-ages.tsx";
import { OwnPictures } from "./word-pictures.tsx";

/** The school's own splits, its own ages of words, and its accent. */
export function OwnSplits({ ground }: ToolWanted) {
  const [open, setOpen] = useState<OwnSplit | null>(null);
  const { own } = ground;
  const { own: pictures } = usePictures(undefined);
  const version = useAsk(getSchool, {}).data?.version ?? 0;
  const choose = async (accent: string) => {
    try {
      await saveOver({
        content: { accent },
        onto: version,
        send: (content, onto) => call(setAccent, { body: { ...content, version: onto } }),
        says: (content) => ({ Accent: accents.find((one) => one.id === content.accent)?.name ?? content.accent }),
      });
      await refreshAll();
      toast("Saved. What a child says in this accent counts as right.");
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const reading = open ? split(open.text, { lexicon: ground.lexicon, accent: ground.accent })[0] : undefined;
  return (
    <div className="flex flex-col gap-5">
      <div className="max-w-md">
        <Choice
          label="Accent of the school"
          hint="Two answers that sound alike in it are the same answer."
          value={ground.accent.id}
          onChange={(event) => void choose(event.target.value)}
        >
          {accents.map((accent) => (
            <option key={accent.id} value={accent.id}>
              {accent.name}
            </option>
          ))}
        </Choice>
      </div>
      {own.length + ground.ages.length + pictures.length === 0 && (
        <Empty>
          Words that your school splits another way than the tool, that your children know from another age, or that
          have a picture of yours appear here. Open a word under Look.
        </Empty>
      )}
      {own.length > 0 && (
        <section className="rounded-lg border border-line bg-sheet">
          <header className="flex items-center justify-between border-b border-line px-4 py-2.5">
            <h2>Splits of our school</h2>
            <div className="flex gap-2">
              <Button onClick={() => download("our-splits.txt", "text/plain", asText(own))}>Save as text</Button>
              <Button
                onClick={() =>
                  download("our-splits.json", "application/json", `${JSON.stringify({ splits: own }, null, 2)}\n`)
                }
              >
                Save as JSON
              </Button>
            </div>
          </header>
          <ul>
            {own.map((one) => (
              <li
                key={one.id}
                className="flex items-center justify-between gap-4 border-b border-line px-4 py-2 last:border-b-0"
              >
                <span className="text-xl">
                  <BracketWord text={one.text} units={one.units.map(unitOf)} />
                </span>
                <span className="grow text-soft">
                  {one.reason} <Cut split={one} lexicon={ground.lexicon} />
                </span>
                <Button onClick={() => setOpen(one)} aria-label={`Change the split of ${one.text}`}>
                  Change
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <OwnAges ground={ground} />
      <OwnPictures />
      {open && reading && (
        <SplitEditor
          word={open.text}
          {...{ reading, own: open, lexicon: ground.lexicon }}
          onClose={() => setOpen(null)}
        />
      )}
    </div>
  );
}

/** That a split of the school stands against what it teaches as one. */
function Cut({ split: { text, units }, lexicon }: { split: OwnSplit; lexicon: Lexicon }) {
  const cut = cutBy(text, units, lexicon.ownUnits);
  return cut.length > 0 ? saysCut(cut) : null;
}

/** In the notation of the tool's own list, so that it can be read back. */
function asText(own: readonly OwnSplit[]): string {
  return own.map(({ text, units }) => `${writeEntry(ownEntry(text, units))}\n`).join("");
}
