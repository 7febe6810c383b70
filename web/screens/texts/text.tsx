import { type ReactNode, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { removeText, restoreText, type TextView } from "#contract";
import { sentenceLines, writeText } from "#core/reading";
import { plural } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { useForOptions } from "#web/device/readers.ts";
import { useTextLook } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { download } from "#web/parts/download.ts";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { MarkedText } from "#web/parts/marked-text.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { EachReader } from "./each-reader.tsx";
import { PreparationView } from "./preparation-view.tsx";
import { usePreparation } from "./use-preparation.ts";

type Face = "child" | "marked";

/** One text: as the child reads it, with its brackets, and prepared for these readers. */
export function Screen() {
  const options = useForOptions();
  const { textId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const { text, found, reader, ground, preparation, words, error } = usePreparation(textId, forKey);
  const [face, setFace] = useState<Face>("child");
  const [removing, setRemoving] = useState(false);
  if (error)
    return (
      <Frame>
        <Trouble error={error} />
      </Frame>
    );
  if (found === false)
    return (
      <Page place="Text" title="There is no such text">
        <ButtonLink to="/texts" shape="main">
          Go to Texts
        </ButtonLink>
      </Page>
    );
  if (!text || !words || !preparation || !found)
    return (
      <Frame>
        <Waiting rows={8} />
      </Frame>
    );
  const forPart = forKey === "all" ? "" : `?for=${forKey}`;
  const [kind, id = ""] = forKey.split(":");
  return (
    <Page
      place="Text"
      title={text.title}
      about={`${found.step ? `Step ${found.step} of ${found.orderName}, ` : ""}${plural(found.fit.words, "word")}. ${kind === "all" ? "" : found.fit.why}`}
      actions={
        <>
          <ForChoice
            options={options}
            value={forKey}
            onChange={(key) => setSearch({ for: key }, { replace: true })}
          />
          {kind === "child" && (
            <ButtonLink to={`/texts/${text.id}/read?child=${id}`} shape="main">
              Listen to {reader?.name} read it
            </ButtonLink>
          )}
          {kind === "group" && (
            <ButtonLink to={`/texts/${text.id}/read?group=${id}`} shape="main">
              Read it together
            </ButtonLink>
          )}
          <Button onClick={() => window.print()}>Print</Button>
        </>
      }
    >
      <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[3fr_2fr] print:block">
        <TheText text={text} face={face} onFace={setFace}>
          <MarkedText text={text.body} words={words} />
        </TheText>
        <div className="no-print flex flex-col gap-4">
          <Panel
            title="Before reading"
            actions={<ButtonLink to={`/texts/${text.id}/prepare${forPart}`}>Change, print or show</ButtonLink>}
          >
            <PreparationView preparation={preparation} />
          </Panel>
          {(kind === "class" || kind === "group") && reader && ground && (
            <EachReader text={text} reader={reader} ground={ground} />
          )}
          <Questions text={text} />
          <Panel title={text.own ? "A text of ours" : "A text that ships"}>
            <div className="flex flex-wrap gap-2">
              {text.own ? (
                <>
                  <ButtonLink to={`/texts/${text.id}/edit${forPart}`}>Change it</ButtonLink>
                  <Button onClick={() => setRemoving(true)}>Remove it</Button>
                </>
              ) : (
                <ButtonLink to={`/texts/new?copy=${text.id}${forKey === "all" ? "" : `&for=${forKey}`}`}>
                  Make a copy to change
                </ButtonLink>
              )}
              <Button onClick={() => download(`${text.title}.md`, "text/markdown", writeText(text))}>
                Save as Markdown
              </Button>
            </div>
          </Panel>
        </div>
      </div>
      <Removing text={text} open={removing} onClose={() => setRemoving(false)} />
    </Page>
  );
}

function Frame({ children }: { children: ReactNode }) {
  return (
    <Page place="Text" title="Text">
      {children}
    </Page>
  );
}

interface TheTextWanted {
  readonly text: TextView;
  readonly face: Face;
  readonly onFace: (face: Face) => void;
  /** The text with its brackets. */
  readonly children: ReactNode;
}

function TheText({ text, face, onFace, children }: TheTextWanted) {
  const [size, setSize] = useState(24);
  const [look, setLook] = useTextLook();
  const body = look.sentences ? sentenceLines(text.body) : text.body;
  const toggle = "min-h-9 rounded-full border px-3.5";
  return (
    <section
      aria-label="The text"
      className="rounded-lg border border-line bg-sheet px-6 py-4 print:border-0 print:p-0"
    >
      <div className="no-print mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
        <span className="flex gap-2">
          {(["child", "marked"] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={face === one}
              onClick={() => onFace(one)}
              className={`${toggle} ${face === one ? "border-leaf bg-leaf-pale font-semibold" : "border-line"}`}
            >
              {one === "child" ? "As the child reads it" : "With brackets"}
            </button>
          ))}
        </span>
        {face === "child" && (
          <>
            <label className="flex items-center gap-2 text-sm text-soft">
              <input
                type="checkbox"
                checked={look.sentences}
                onChange={(event) => setLook({ ...look, sentences: event.target.checked })}
                className="accent-leaf"
              />
              a line for each sentence
            </label>
            <label className="ml-auto flex items-center gap-2 text-sm text-soft">
              Size
              <input
                type="range"
                min={16}
                max={44}
                step={2}
                value={size}
                onChange={(event) => setSize(Number(event.target.value))}
                className="w-20 accent-leaf"
              />
            </label>
          </>
        )}
      </div>
      <h2 className="font-child mb-2" style={{ fontSize: size * 1.2 }}>
        {text.title}
      </h2>
      {face === "child" ? (
        <div className="font-child" style={{ fontSize: size, lineHeight: look.spacing }}>
          {body.split("\n\n").map((paragraph, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a paragraph is its place in the text
            <p key={at} className="mb-[0.7em] whitespace-pre-line">
              {paragraph}
            </p>
          ))}
        </div>
      ) : (
        children
      )}
    </section>
  );
}

function Questions({ text }: { text: TextView }) {
  if (text.questions.length === 0) return null;
  return (
    <Panel title="Questions">
      <ol className="flex list-decimal flex-col gap-2 pl-5">
        {text.questions.map(({ ask, answers, depth, where }) => (
          <li key={ask}>
            <p>{ask}</p>
            <p className="text-sm text-soft">
              {answers.length > 0 && `${answers.join(" · ")}. `}
              {where && (
                <>
                  {depth === "found" ? "It stands in the text:" : "Between the lines; look at:"}{" "}
                  <span className="font-child">“{where}”</span>
                </>
              )}
            </p>
          </li>
        ))}
      </ol>
    </Panel>
  );
}

function Removing({ text, open, onClose }: { text: TextView; open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const remove = async () => {
    try {
      await call(removeText, { params: { id: text.id } });
      await refreshAll();
      navigate("/texts");
      toastWithUndo(`“${text.title}” is removed.`, async () => {
        try {
          await call(restoreText, { params: { id: text.id } });
          await refreshAll();
        } catch (error) {
          toast.error(wordsOfError(error));
        }
      });
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <Sheet open={open} onClose={onClose} title={`Remove “${text.title}”`}>
      <p className="mb-4">
        The text goes with all its {text.version === 1 ? "words" : `${text.version} versions`}. Readings of it stay
        with the children, each with what was read. To keep it, save the library as a file first.
      </p>
      <div className="flex gap-2">
        <Button shape="warn" onClick={remove}>
          Remove it
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Sheet>
  );
}
