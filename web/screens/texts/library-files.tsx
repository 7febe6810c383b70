import { useState } from "react";
import { listTexts, saveText } from "#contract";
import { type Arrival, sortArrivals } from "#core/reading";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId, useMarker } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { download } from "#web/parts/download.ts";
import { toast } from "#web/parts/toast.tsx";
import type { FileRead } from "./library-file.ts";

interface Chosen {
  readonly arrivals: readonly Arrival[];
  readonly refused: FileRead["refused"];
}

/** The library as a file: all of it out, texts in, each with what becomes of it before anything is taken. */
export function LibraryFiles() {
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [busy, setBusy] = useState(false);
  const [marker] = useMarker();
  const texts = useAsk(listTexts, {});
  const here = texts.data ?? [];
  const choose = async (files: FileList | null) => {
    const { readLibraryFile } = await import("./library-file.ts");
    const read = await Promise.all(
      [...(files ?? [])].map(async (file) => readLibraryFile(file.name, await file.text())),
    );
    setChosen({
      arrivals: sortArrivals(
        read.flatMap((one) => one.texts),
        here,
        newId,
      ),
      refused: read.flatMap((one) => one.refused),
    });
  };
  const coming = chosen?.arrivals.filter((one) => one.does !== "here already") ?? [];
  const take = async () => {
    setBusy(true);
    let taken = 0;
    try {
      for (const { id, content } of coming) {
        if (id === null) continue;
        const version = here.find((text) => text.id === id)?.version ?? 0;
        const savedAt = stampNow();
        const body = {
          content,
          version,
          savedAt,
          savedBy: marker.trim() || "Teacher",
        };
        await call(saveText, { params: { id }, body });
        taken++;
      }
      toast(`${taken} taken.`);
      setChosen(null);
      setOpen(false);
    } catch (error) {
      toast.error(`${wordsOfError(error)} ${taken} of ${coming.length} are in; choose the file again for the rest.`);
      setChosen(null);
    }
    setBusy(false);
    await refreshAll();
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>Files</Button>
      <Sheet open={open} onClose={() => setOpen(false)} title="Texts as files">
        <div className="flex flex-col gap-5">
          <section>
            <h3 className="font-semibold">Out</h3>
            <p className="mb-1.5 text-sm text-soft">
              Every text with its questions and meanings, as JSON. Help tells its form.
            </p>
            <Button
              disabled={here.length === 0}
              onClick={async () => {
                const { writeLibrary } = await import("./library-file.ts");
                download("texts.json", "application/json", writeLibrary(here));
              }}
            >
              Save all {here.length} as a file
            </Button>
          </section>
          <section>
            <h3 className="font-semibold">In</h3>
            <label className="flex flex-col gap-1 text-sm text-soft">
              Libraries as JSON, or texts as plain text or Markdown, several at once.
              <input
                type="file"
                multiple
                accept=".json,.txt,.md,text/plain,application/json"
                onChange={(event) => void choose(event.target.files)}
                className="text-ink"
              />
            </label>
            {chosen && (
              <>
                <section tabIndex={0} aria-label="What was chosen" className="mt-2 max-h-60 overflow-y-auto">
                  <ul aria-label="What becomes of each text">
                    {chosen.arrivals.map(({ content, does }, at) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: the rows never change their order
                      <li key={at} className="flex justify-between gap-3 border-t border-line/60 py-1">
                        <span>{content.title}</span>
                        <span className="text-sm text-soft">{does}</span>
                      </li>
                    ))}
                    {chosen.refused.map(({ title, says }, at) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: the rows never change their order
                      <li key={`no ${at}`} className="border-t border-line/60 py-1">
                        {title} <span className="text-sm text-damson">not taken: {says}</span>
                      </li>
                    ))}
                  </ul>
                </section>
                <Button shape="main" className="mt-3" disabled={busy || coming.length === 0} onClick={take}>
                  {coming.length === 0 ? "Nothing new to take" : `Take ${coming.length}`}
                </Button>
              </>
            )}
          </section>
        </div>
      </Sheet>
    </>
  );
}
