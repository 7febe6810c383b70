import { lazy, Suspense, useEffect, useMemo } from "react";
import { useParams, useSearchParams } from "react-router";
import { type ChildLetters, getChild, getGroup, getSchool, listReadings, listTexts, type TextView } from "#contract";
import { BEFORE_FIRST } from "#core/reading";
import { useKept } from "#web/device/kept.ts";
import { keepKeys, useKeys } from "#web/device/keys.tsx";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { useFor } from "#web/device/readers.ts";
import { newId, useMarker } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { useChildFont } from "#web/parts/child-font.ts";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { type Came, type Draft, draftOf, freshDraft } from "./draft.ts";
import { groundSent, readerSent, textsOffPage, useWorked } from "./laying.ts";
import { MarkBar } from "./mark-bar.tsx";
import { endFace, ReadingFace } from "./reading-face.tsx";
import { ReadingText } from "./reading-text.tsx";
import { type ReadingDesk, useReading } from "./use-reading.ts";
import { WhoCame } from "./who-came.tsx";

/** A child reads, or a group together; the adult marks word by word, and sees at once what it says. */
export function Screen() {
  const [search] = useSearchParams();
  const childId = search.get("child");
  const groupId = search.get("group");
  return childId ? (
    <OneChild key={search.toString()} childId={childId} readingId={search.get("reading")} />
  ) : (
    <Together key={search.toString()} groupId={groupId ?? ""} />
  );
}

/** One child, with a reading that begins, or one that was kept. */
function OneChild({ childId, readingId }: { childId: string; readingId: string | null }) {
  const { textId = "" } = useParams();
  const [marker] = useMarker();
  const texts = useKept(listTexts, {}, { revalidateOnFocus: false });
  const child = useKept(getChild, { params: { id: childId } }, { revalidateOnFocus: false });
  const readings = useKept(listReadings, { params: { id: childId } }, { revalidateOnFocus: false });
  const { ground, error: noWords } = useLexicon();
  const { reader, error: noReader } = useFor(`child:${childId}`);
  const text = texts.data?.find((one) => one.id === textId);
  const kept = readings.data?.find((one) => one.id === readingId);
  const ask = useMemo(
    () =>
      text && ground && reader
        ? () => textsOffPage.ask((worker) => worker.fits(groundSent(ground), text, [readerSent(reader)]))
        : undefined,
    [text, ground, reader],
  );
  const { value: fit, error: noFit } = useWorked(ask);
  const trouble = texts.error ?? child.error ?? noWords ?? (readingId ? readings.error : undefined);
  if (trouble)
    return (
      <Frame>
        <Trouble error={trouble} />
      </Frame>
    );
  // Without a line no one can say how the text fits; the reading goes on without it.
  const fitKnown = fit !== undefined || noReader !== undefined || noFit !== undefined;
  if (!texts.data || !child.data || !ground || (readingId === null ? !fitKnown : !readings.data))
    return (
      <Frame>
        <Waiting rows={8} />
      </Frame>
    );
  if (readingId !== null ? !kept : !text) return <Gone />;
  const make = (): Draft => {
    if (kept) return draftOf(kept);
    return freshDraft({ text: text as TextView, childId, group: [], fit: fit?.[0]?.share ?? null, markedBy: marker });
  };
  return (
    <Desk
      address={`reading ${readingId ?? childId} ${textId}`}
      who={child.data.child.name}
      letters={child.data.child}
      classId={child.data.child.classId}
      text={text}
      ground={ground}
      make={make}
      kept={kept !== undefined}
      next={`/child/${childId}`}
    />
  );
}

/** A group that reads together: no clock, and what stops them is the group's. */
function Together({ groupId }: { groupId: string }) {
  const { textId = "" } = useParams();
  const [marker] = useMarker();
  const texts = useKept(listTexts, {}, { revalidateOnFocus: false });
  const group = useKept(getGroup, { params: { id: groupId } }, { revalidateOnFocus: false });
  const { ground, error: noWords } = useLexicon();
  const { reader } = useFor(`group:${groupId}`);
  const trouble = texts.error ?? group.error ?? noWords;
  if (trouble)
    return (
      <Frame>
        <Trouble error={trouble} />
      </Frame>
    );
  if (!texts.data || !group.data || !ground || !reader)
    return (
      <Frame>
        <Waiting rows={8} />
      </Frame>
    );
  const text = texts.data.find((one) => one.id === textId);
  if (!text) return <Gone />;
  const members = reader.children.map(
    ({ id, name }): Came => ({ childId: id, name, readingId: newId(), came: true }),
  );
  const [first] = members;
  if (!first)
    return (
      <Frame>
        <p>No one is in this group yet. Put children into it, then read together.</p>
      </Frame>
    );
  return (
    <Desk
      address={`reading ${groupId} ${textId}`}
      who={group.data.name}
      letters={undefined}
      classId={undefined}
      text={text}
      ground={ground}
      kept={false}
      next={`/texts?for=group:${groupId}`}
      make={() => freshDraft({ text, childId: first.childId, group: members, fit: null, markedBy: marker })}
    />
  );
}

function Frame({ children }: { children: React.ReactNode }) {
  return (
    <Page place="Reading" title="Reading">
      {children}
    </Page>
  );
}

function Gone() {
  return (
    <Frame>
      <p className="mb-4">This text, or this reading of it, is not here any more. Choose a text again.</p>
      <ButtonLink to="/texts">Go to Texts</ButtonLink>
    </Frame>
  );
}

interface DeskWanted {
  readonly address: string;
  readonly who: string;
  /** How letters stand for the child who reads; missing where a group does. */
  readonly letters: ChildLetters | undefined;
  readonly classId: string | undefined;
  /** Missing for a kept reading of a text that was removed. */
  readonly text: TextView | undefined;
  readonly ground: SchoolWords;
  readonly make: () => Draft;
  /** It was kept before and is opened again. */
  readonly kept: boolean;
  /** Where the adult goes on once it is kept. */
  readonly next: string;
}

const loadAfterReading = () => import("./after-reading.tsx");
const AfterReading = lazy(() => loadAfterReading().then((module) => ({ default: module.AfterReading })));

function Desk({ address, who, letters, classId, text, ground, make, kept, next }: DeskWanted) {
  const school = useKept(getSchool, {});
  const desk = useReading(address, make);
  const { draft, words, current } = desk;
  const asksLast = draft?.asksLast ?? false;
  const lettersHere = useChildFont();
  // What comes after is fetched while the child reads, so that it waits for no connection then.
  const { running } = desk;
  useEffect(() => {
    if (running) void loadAfterReading();
  }, [running]);
  const skip = () => {
    // The line as it stands on the screen.
    const drawn = [...document.querySelectorAll<HTMLElement>("[data-word]:not([data-word='-1'])")];
    const top = current === null || current < 0 ? undefined : drawn[current]?.offsetTop;
    if (top !== undefined) desk.skip(drawn.flatMap((word, at) => (word.offsetTop === top ? [at] : [])));
  };
  useKeys([
    { key: " ", does: desk.running ? "Pause the clock" : "Start the clock", run: desk.pause },
    { key: "Enter", does: "Stop", run: desk.stop },
    { key: "ArrowRight", does: "The next word", run: () => desk.step(1) },
    { key: "ArrowLeft", does: "The word before", run: () => desk.step(-1) },
  ]);
  if (!draft || !school.data || !lettersHere)
    return (
      <Frame>
        <Waiting rows={8} />
      </Frame>
    );
  const together = draft.group.length > 0;
  return (
    <div className="mx-auto flex w-full max-w-[1080px] flex-1 flex-col px-4 py-3">
      <header className="no-print mb-2 flex flex-wrap items-center justify-between gap-2">
        <h1 className="text-lg">
          {who} <span className="font-normal text-soft">· {draft.body.title}</span>
        </h1>
        <div className="flex flex-wrap items-center gap-1.5">
          {!together && <Clock desk={desk} />}
          <Button className="min-h-12" onMouseDown={keepKeys} onClick={desk.stop} disabled={draft.finished}>
            {together ? "Done" : "Stop"} <kbd className="text-xs text-soft">Enter</kbd>
          </Button>
          <ReadingFace {...{ desk, letters }} />
          <Button
            className="min-h-12"
            onClick={() => {
              endFace(draft.id, draft.faceCode);
              void desk.again();
            }}
          >
            {kept ? "As it was saved" : "From the start"}
          </Button>
        </div>
      </header>
      {together && <WhoCame group={draft.group} onChange={(group) => desk.put({ group })} />}
      {asksLast && (
        <p
          role="status"
          className="no-print mb-2 flex flex-wrap items-center justify-between gap-2 rounded-md bg-damson-pale px-3 py-2"
        >
          Tap the last word that was read.
          <Button onClick={() => desk.stoppedAt(null)}>It was read to the end</Button>
        </p>
      )}
      <div className="no-print">
        <ReadingText desk={desk} />
        {!asksLast && (
          <MarkBar
            word={current === BEFORE_FIRST ? "before the first word" : words[current ?? words.length]?.text}
            only={current === BEFORE_FIRST ? "putIn" : undefined}
            marks={current === null ? [] : draft.body.marks.filter((mark) => mark.at === current)}
            wait={school.data.reading.wait}
            onPress={desk.press}
            onSkip={skip}
            onHeard={desk.heard}
          />
        )}
      </div>
      {draft.finished && !asksLast && (
        <Suspense fallback={<Waiting rows={6} />}>
          <AfterReading
            desk={desk}
            text={text}
            ground={ground}
            who={who}
            classId={classId}
            school={school.data}
            next={next}
          />
        </Suspense>
      )}
    </div>
  );
}

function Clock({ desk }: { desk: ReadingDesk }) {
  const { clock, running, pause, put, draft } = desk;
  const finished = draft?.finished ?? false;
  return (
    <>
      <span className="min-w-16 text-right text-xl tabular-nums" data-testid="clock">
        {Math.floor(clock.ms / 1000)} s
      </span>
      <label className="flex min-h-12 items-center gap-1.5 text-sm">
        <input
          type="checkbox"
          checked={draft?.limited ?? true}
          onChange={(event) => put({ limited: event.target.checked })}
          className="accent-leaf"
        />
        one minute
      </label>
      <Button
        className="min-h-12"
        shape={finished ? "plain" : "main"}
        onMouseDown={keepKeys}
        onClick={pause}
        disabled={finished}
      >
        {running ? "Pause" : (draft?.ms ?? 0) > 0 ? "Go on" : "Start"} <kbd className="text-xs">Space</kbd>
      </Button>
    </>
  );
}
