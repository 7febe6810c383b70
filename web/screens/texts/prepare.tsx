import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { type PreparationBody, savePreparation } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { useForOptions } from "#web/device/readers.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { PreparationFields } from "./preparation-fields.tsx";
import { PreparationShow } from "./preparation-show.tsx";
import { PreparationView } from "./preparation-view.tsx";
import { usePreparation } from "./use-preparation.ts";

interface Kept {
  readonly preparation: PreparationBody | null;
}

/** A preparation in words; null is what the engine proposes. */
function saysOf(one: PreparationBody | null): Record<string, string> {
  if (!one) return { "As it is": "as the engine proposes it" };
  const { focus, first, longer, wholes, meanings, watch, note } = one;
  return {
    "To look at": focus.map((gpc) => showGrapheme(splitGpc(gpc).grapheme)).join(", "),
    "Words with them": first.join(", "),
    "Longer words": longer.join(", "),
    "Words as wholes": wholes.join(", "),
    "What words mean": meanings.map(({ word, means }) => `${word}: ${means}`).join("\n"),
    "To watch for": watch.join("\n"),
    Note: note,
  };
}

/** Mine, then what only theirs has; the note is mine where I wrote one. */
function ofBoth(mine: PreparationBody | null, theirs: PreparationBody | null): PreparationBody | null {
  if (!mine || !theirs) return mine ?? theirs;
  const either = (pick: (one: PreparationBody) => readonly string[], most: number) =>
    [...new Set([...pick(mine), ...pick(theirs)])].slice(0, most);
  const known = new Set(mine.meanings.map((one) => one.word));
  return {
    focus: either((one) => one.focus, 20),
    first: either((one) => one.first, 40),
    longer: either((one) => one.longer, 40),
    wholes: either((one) => one.wholes, 40),
    meanings: [...mine.meanings, ...theirs.meanings.filter((one) => !known.has(one.word))].slice(0, 40),
    watch: either((one) => one.watch, 12),
    note: mine.note || theirs.note,
  };
}

/** The preparation of a text for some readers: changed, printed on one page, shown to them one thing after another. */
export function Screen() {
  const options = useForOptions();
  const { textId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const { text, found, reader, preparation, kept, version, error } = usePreparation(textId, forKey);
  const [changed, setChanged] = useState<{ readonly forKey: string; readonly preparation: PreparationBody } | null>(
    null,
  );
  useUnsaved(changed !== null);
  const mine = changed?.forKey === forKey ? changed.preparation : preparation;
  if (error || found === false || !text || !mine)
    return (
      <Page place="Before reading" title="Before reading">
        {error ? (
          <Trouble error={error} />
        ) : found === false ? (
          <ButtonLink to="/texts" shape="main">
            There is no such text: go to Texts
          </ButtonLink>
        ) : (
          <Waiting rows={8} />
        )}
      </Page>
    );
  const save = async (next: PreparationBody | null) => {
    try {
      const send = (content: Kept, onto: number) =>
        call(savePreparation, { params: { textId, forKey }, body: { ...content, version: onto } });
      await saveOver<Kept, unknown>({
        content: { preparation: next },
        onto: version,
        send,
        says: ({ preparation: one }) => saysOf(one),
        ...(next && {
          both: {
            says: "Keep what is in either",
            keep: (mine, theirs, onto) => send({ preparation: ofBoth(mine.preparation, theirs.preparation) }, onto),
          },
        }),
      });
      await refreshAll();
      setChanged(null);
      toast(next ? "Saved for these readers." : "As the engine proposes it again.");
    } catch (problem) {
      toast.error(`${wordsOfError(problem)} Your changes are still here.`);
    }
  };
  const whom = reader?.key === "all" ? "" : ` for ${reader?.name}`;
  return (
    <Page
      place="Before reading"
      title={`Before reading “${text.title}”`}
      about={`Made by the engine${whom}, from what they can read. Change what you like; it is saved for these readers.`}
      actions={
        <>
          <ForChoice
            options={options}
            value={forKey}
            onChange={(key) => setSearch({ for: key }, { replace: true })}
          />
          <PreparationShow preparation={mine} />
          <Button onClick={() => window.print()}>Print</Button>
          {(kept || changed) && <Button onClick={() => save(null)}>As proposed</Button>}
          <Button shape="main" disabled={!changed} onClick={() => save(mine)}>
            Save
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2 print:block">
        <section
          aria-label="The page"
          className="rounded-lg border border-line bg-sheet px-6 py-5 print:border-0 print:p-0"
        >
          <h2 className="font-child text-2xl">{text.title}</h2>
          <p className="mb-3 text-sm text-soft">Before reading{whom}</p>
          <PreparationView preparation={mine} />
        </section>
        <div className="no-print">
          <Panel title="Change it">
            <PreparationFields preparation={mine} onChange={(preparation) => setChanged({ forKey, preparation })} />
          </Panel>
        </div>
      </div>
    </Page>
  );
}
