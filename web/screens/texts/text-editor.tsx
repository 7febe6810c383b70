import { type ClipboardEvent, useDeferredValue, useMemo, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { listTexts, saveText, type TextContentBody, type TextView } from "#contract";
import { MOST_LETTERS } from "#core/reading";
import { keyOf } from "#core/words";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { stampNow } from "#web/device/clock.ts";
import { useForOptions } from "#web/device/readers.ts";
import { newId, useMarker } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextArea, TextField } from "#web/parts/field.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Fault, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { TextCheck } from "./text-check.tsx";
import { MeaningFields, QuestionFields } from "./text-extras.tsx";
import { formOf, judgeForm, type TextForm, useTextForm } from "./text-form.ts";
import { TextVersions } from "./text-versions.tsx";

const emptyForm: TextForm = { version: 0, title: "", body: "", exceptions: [], questions: [], words: [] };

/** A text of the school's own, new or changed, with live marks of what its readers cannot read yet. */
export function Screen() {
  const { textId } = useParams();
  const [search] = useSearchParams();
  const texts = useAsk(listTexts, {}, { revalidateOnFocus: false });
  const copied = search.get("copy");
  if (texts.error && !texts.data)
    return (
      <Page place="Write a text" title="Write a text">
        <Trouble error={texts.error} />
      </Page>
    );
  if (!texts.data)
    return (
      <Page place="Write a text" title="Write a text">
        <Waiting rows={8} />
      </Page>
    );
  const own = textId ? texts.data.find((one) => one.id === textId && one.own) : undefined;
  const source = texts.data.find((one) => one.id === copied);
  if (textId && !own)
    return (
      <Page place="Write a text" title="There is no such text of ours">
        <ButtonLink to="/texts" shape="main">
          Go to Texts
        </ButtonLink>
      </Page>
    );
  return <Editor key={textId ?? `new ${copied}`} own={own} source={source} />;
}

function Editor({ own, source }: { own: TextView | undefined; source: TextView | undefined }) {
  const options = useForOptions();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const [marker] = useMarker();
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [freshId] = useState(newId);
  const { draft, change, forget } = useTextForm(own?.id ?? (source ? `copy of ${source.id}` : "new"), () =>
    own ? formOf(own, own.version) : source ? formOf({ ...source, title: `${source.title}, ours` }, 0) : emptyForm,
  );
  const later = useDeferredValue(draft);
  const judged = useMemo(() => (draft ? judgeForm(draft) : undefined), [draft]);
  if (!draft || !judged || !later)
    return (
      <Page place="Write a text" title="Write a text">
        <Waiting rows={8} />
      </Page>
    );
  const put = (form: Partial<TextForm>) => {
    setSaid(null);
    change({ ...draft, ...form });
  };
  /** A whole text put in at once: its title, questions and meanings go to their places. */
  const putIn = async (source: string, name: string) => {
    if (source.length > MOST_LETTERS) {
      const [long, most] = [source.length, MOST_LETTERS].map((one) => one.toLocaleString("en-GB"));
      setSaid(`That has ${long} characters; a text has at most ${most}. Nothing was put in. Divide it into parts.`);
      return;
    }
    const { readPastedText } = await import("./reads-markdown.ts");
    const read = readPastedText(source, draft.title || name);
    put({ ...formOf(read, draft.version), title: draft.title || read.title });
  };
  const paste = (event: ClipboardEvent) => {
    const source = event.clipboardData.getData("text/plain");
    if (draft.body.trim() !== "" && source.length <= MOST_LETTERS) return;
    event.preventDefault();
    void putIn(source, "");
  };
  const save = async () => {
    if (!judged.content) return;
    setBusy(true);
    try {
      const id = own?.id ?? freshId;
      const savedAt = stampNow();
      const { content } = judged;
      const savedBy = marker.trim() || "Teacher";
      const send = (where: string, mine: { content: TextContentBody }, version: number) =>
        call(saveText, { params: { id: where }, body: { ...mine, version, savedAt, savedBy } });
      const saved = await saveOver({
        content: { content },
        onto: draft.version,
        send: (mine, onto) => send(id, mine, onto),
        says: ({ content: one }) => ({
          Title: one.title,
          Text: one.body,
          Questions: one.questions.map((question) => question.ask).join("\n"),
          "Words explained": one.words.map(({ word, means }) => `${word}: ${means}`).join("\n"),
        }),
        both: { says: "Keep mine as a text of its own", keep: (mine) => send(newId(), mine, 0) },
      });
      await forget();
      await refreshAll();
      if (saved) toast("Saved.");
      navigate(`/texts/${saved?.id ?? id}${forKey === "all" ? "" : `?for=${forKey}`}`);
    } catch (error) {
      setBusy(false);
      void refreshAll();
      setSaid(`${wordsOfError(error)} What you wrote is kept on this device.`);
    }
  };
  const stops = judged.problems.filter((one) => one.stops);
  return (
    <Page
      place="Write a text"
      title={own ? `Change “${own.title}”` : source ? "A copy to change" : "A text of ours"}
      about="Paste a whole text, choose a file, or write. What these readers cannot read yet is marked while you write."
      actions={
        <>
          <ForChoice
            options={options}
            value={forKey}
            onChange={(key) => setSearch({ ...Object.fromEntries(search), for: key }, { replace: true })}
          />
          <Button
            onClick={async () => {
              await forget();
              navigate(own ? `/texts/${own.id}` : "/texts");
            }}
          >
            Leave without keeping
          </Button>
          <Button shape="main" disabled={busy || !judged.content} onClick={save}>
            Save this text
          </Button>
        </>
      }
    >
      <Fault className="mb-3">{said}</Fault>
      <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
        <div className="flex flex-col gap-4">
          <Panel>
            <div className="flex flex-col gap-3">
              <TextField
                label="Title"
                maxLength={120}
                value={draft.title}
                onChange={(event) => put({ title: event.target.value })}
              />
              <TextArea
                label="Text"
                hint="An empty line between paragraphs. Markup stays text."
                rows={12}
                className="font-child text-lg leading-relaxed"
                value={draft.body}
                onPaste={paste}
                onChange={(event) => put({ body: event.target.value })}
              />
              <label className="flex flex-wrap items-center gap-2 text-sm text-soft">
                or from a file, plain text or Markdown
                <input
                  type="file"
                  accept=".txt,.md,text/plain"
                  className="text-ink"
                  onChange={async (event) => {
                    const [file] = event.target.files ?? [];
                    if (file) putIn(await file.text(), file.name.replace(/\.[^.]*$/, ""));
                    event.target.value = "";
                  }}
                />
              </label>
              {draft.body !== "" && stops.length > 0 && (
                <ul role="status" className="text-damson">
                  {stops.map((one) => (
                    <li key={one.says}>{one.says}</li>
                  ))}
                </ul>
              )}
              <ul className="text-sm text-soft">
                {judged.problems
                  .filter((one) => !one.stops)
                  .map((one) => (
                    <li key={one.says}>{one.says}</li>
                  ))}
              </ul>
            </div>
          </Panel>
          <QuestionFields questions={draft.questions} onChange={(questions) => put({ questions })} />
          <MeaningFields words={draft.words} onChange={(words) => put({ words })} />
          {own && <TextVersions textId={own.id} onTake={(content) => put(formOf(content, draft.version))} />}
        </div>
        <TextCheck
          form={later}
          forKey={forKey}
          onWhole={(word, whole) =>
            put({
              exceptions: whole
                ? [...draft.exceptions, word]
                : draft.exceptions.filter((one) => keyOf(one) !== keyOf(word)),
            })
          }
        />
      </div>
    </Page>
  );
}
