import { Printer } from "lucide-react";
import { type ReactNode, useEffect, useMemo } from "react";
import { useParams, useSearchParams } from "react-router";
import { getSession, listSessions, listTexts, type SessionView } from "#contract";
import { mondayOf } from "#core/groups";
import { showGrapheme, splitGpc } from "#core/phonics";
import { type Materials, materialsOf } from "#core/plans";
import { plural, shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { useKept } from "#web/device/kept.ts";
import { useLexicon } from "#web/device/lexicon.ts";
import { usePictures } from "#web/device/own-pictures.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Picture } from "#web/parts/picture.tsx";
import { loadPictures } from "#web/parts/pictures.ts";

type Ground = NonNullable<ReturnType<typeof useLexicon>["ground"]>;

/** What a session needs on the table, on A4 with lines to cut along; of one session, or of all of its group in that week. */
export function Screen() {
  const { sessionId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const session = useAsk(getSession, { params: { id: sessionId } });
  const { ground, error } = useLexicon();
  const data = session.data;
  const all = useAsk(listSessions, data ? { query: { groupId: data.groupId } } : null);
  const week = data && all.data?.filter(({ heldOn }) => mondayOf(heldOn) === mondayOf(data.heldOn));
  const whole = search.get("of") === "week";
  const others = whole ? (week ?? []).map(({ id }) => id).filter((id) => id !== sessionId) : [];
  const trouble = session.error ?? error;
  if (trouble && !data)
    return (
      <Page place="Materials" title="To lay out">
        <Trouble error={trouble} />
      </Page>
    );
  if (!data || !ground)
    return (
      <Page place="Materials" title="To lay out">
        <Waiting rows={9} />
      </Page>
    );
  return (
    <Page
      place="Materials"
      title="To lay out"
      about={`${data.groupName}, ${whole ? `week of ${shortDay(mondayOf(data.heldOn), todayHere())}` : shortDay(data.heldOn, todayHere())}`}
      actions={
        <>
          {week && week.length > 1 && (
            <div className="w-44">
              <Choice
                bare
                label="For"
                value={whole ? "week" : "session"}
                onChange={(event) => setSearch(event.target.value === "week" ? { of: "week" } : {})}
              >
                <option value="session">this session</option>
                <option value="week">the {plural(week.length, "session")} of its week</option>
              </Choice>
            </div>
          )}
          <ButtonLink to={`/sessions/${sessionId}`}>The session</ButtonLink>
          <Button shape="main" onClick={() => window.print()}>
            <Printer size={15} aria-hidden /> Print
          </Button>
        </>
      }
    >
      <Several first={data} others={others} ground={ground} />
    </Page>
  );
}

/** Sessions of a week are asked one after the other, and laid out together once they are here. */
function Several({
  first,
  others,
  ground,
  known = [],
}: {
  first: SessionView;
  others: readonly string[];
  ground: Ground;
  known?: readonly SessionView[];
}) {
  const [next, ...rest] = others;
  const { data } = useAsk(getSession, next ? { params: { id: next } } : null);
  const sessions = useMemo(() => [first, ...known], [first, known]);
  if (next && data) return <Several {...{ first, ground }} others={rest} known={[...known, data]} />;
  return next ? <Waiting rows={9} /> : <Laid sessions={sessions} ground={ground} />;
}

function Laid({ sessions, ground }: { sessions: readonly SessionView[]; ground: Ground }) {
  const { lexicon } = ground;
  const laid = useMemo(
    () =>
      materialsOf(
        sessions.map(({ plan }) => plan),
        lexicon,
      ),
    [sessions, lexicon],
  );
  const { pictures } = usePictures(ground.pictures);
  const shown = useMemo(
    () => laid.pictures.flatMap((word) => ({ word, sign: pictures[word] ?? "" })).filter(({ sign }) => sign),
    [laid, pictures],
  );
  useEffect(() => void loadPictures(shown.map(({ sign }) => sign)), [shown]);
  const names = sessions[0]?.members.map(({ name }) => name) ?? [];
  return (
    <>
      <Needed laid={laid} readers={names.length} />
      <Sheet title="Cards" show={laid.cards.length > 0}>
        <Grid columns="grid-cols-3">
          {laid.cards.map((gpc) => (
            <Cut key={gpc} tall="h-[4.4cm]">
              <span className="text-[40pt] leading-none">{showGrapheme(splitGpc(gpc).grapheme)}</span>
            </Cut>
          ))}
        </Grid>
      </Sheet>
      <Sheet title="Word strips" show={laid.words.length > 0}>
        <Grid columns="grid-cols-2">
          {laid.words.map((word) => (
            <Cut key={word} tall="h-[2.6cm]">
              <span className="text-[30pt] leading-none">
                <StripWord word={word} lexicon={laid.marked.includes(word) ? lexicon : undefined} />
              </span>
            </Cut>
          ))}
        </Grid>
      </Sheet>
      <Sheet title="Pictures" show={shown.length > 0}>
        <Grid columns="grid-cols-3">
          {shown.map(({ word, sign }) => (
            <Cut key={word} tall="h-[4.4cm]">
              <Picture of={word} picture={sign} className="text-[56pt] leading-none" />
            </Cut>
          ))}
        </Grid>
      </Sheet>
      <Sheet title="Sentence strips" show={laid.lines.length > 0}>
        <Grid columns="grid-cols-1">
          {laid.lines.map((line) => (
            <Cut key={line} tall="min-h-[2.4cm]">
              <span className="text-[24pt] leading-tight">{line}</span>
            </Cut>
          ))}
        </Grid>
      </Sheet>
      <Sheet title="Tiles" show={laid.tiles.length > 0}>
        <Grid columns="grid-cols-6">
          {laid.tiles.flatMap(({ grapheme, count }) =>
            Array.from({ length: count }, (_, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same tile as often as it is needed
              <Cut key={`${grapheme} ${at + 1}`} tall="h-[2.8cm]">
                <span className="text-[28pt] leading-none">{grapheme}</span>
              </Cut>
            )),
          )}
        </Grid>
      </Sheet>
      <Sheet title="Boxes" show={laid.boxes > 0}>
        {names.map((name) => (
          <div key={name} className="mb-6 break-inside-avoid">
            <p className="text-sm">{name}</p>
            <div className="flex">
              {Array.from({ length: laid.boxes }, (_, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: boxes stand in their order
                <span key={at} className="-ml-px h-[2.8cm] w-[2.8cm] border-2 border-ink" />
              ))}
            </div>
          </div>
        ))}
      </Sheet>
      {laid.mats.map((heads, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: mats stand in their order
        <Sheet key={at} title="A mat to sort on" show>
          <div className="flex">
            {heads.map((head) => (
              <div key={head} className="-ml-px h-[22cm] flex-1 border-2 border-ink pt-2 text-center">
                <span className="font-child text-[36pt]">{head}</span>
              </div>
            ))}
          </div>
        </Sheet>
      ))}
      <Sheet title="Sheets to write on" show={laid.writes.words + laid.writes.sentences > 0}>
        {names.map((name) => (
          <div key={name} className="mb-8 break-inside-avoid">
            <p className="text-sm">{name}</p>
            <ol className="grid grid-cols-2 gap-x-8">
              {Array.from({ length: laid.writes.words }, (_, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: lines stand in their order
                <li key={at} className="flex h-[1.3cm] items-end gap-2 text-sm">
                  {at + 1} <span className="flex-1 border-b border-ink" />
                </li>
              ))}
            </ol>
            {Array.from({ length: laid.writes.sentences * 2 }, (_, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines stand in their order
              <p key={at} className="h-[1.4cm] border-b border-ink" />
            ))}
          </div>
        ))}
      </Sheet>
    </>
  );
}

/** A word as its strip has it: with marks under its sounds where the list knows it. */
function StripWord({ word, lexicon }: { word: string; lexicon: Ground["lexicon"] | undefined }) {
  const units = lexicon?.find(word)[0]?.units;
  return units ? <BracketWord text={word} units={units} /> : word;
}

/** The list of what to lay out, which comes first on paper too. */
function Needed({ laid, readers }: { laid: Materials; readers: number }) {
  const shelf = useKept(listTexts, {}, { revalidateOnFocus: false });
  const tiles = laid.tiles.reduce((sum, { count }) => sum + count, 0);
  const lines = [
    laid.cards.length > 0 && plural(laid.cards.length, "card"),
    laid.words.length > 0 && plural(laid.words.length, "word strip"),
    laid.pictures.length > 0 && plural(laid.pictures.length, "picture"),
    laid.lines.length > 0 && plural(laid.lines.length, "sentence strip"),
    tiles > 0 && plural(tiles, "tile"),
    laid.boxes > 0 && `${plural(readers, "row")} of ${plural(laid.boxes, "box", "boxes")}`,
    laid.mats.length > 0 && plural(laid.mats.length, "mat to sort on", "mats to sort on"),
    laid.writes.words + laid.writes.sentences > 0 && plural(readers, "sheet to write on", "sheets to write on"),
    ...laid.texts.map((title) =>
      shelf.data && !shelf.data.some((text) => text.title === title)
        ? `the text “${title}”, which is not on the shelf`
        : `the text “${title}”, printed from Texts`,
    ),
  ].filter((one): one is string => Boolean(one));
  return (
    <section aria-label="List">
      {lines.length === 0 ? (
        <p className="text-soft">Nothing has to be laid out for this.</p>
      ) : (
        <ul className="list-disc pl-5">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** One kind of thing, on pages of its own. */
function Sheet({ title, show, children }: { title: string; show: boolean; children: ReactNode }) {
  if (!show) return null;
  return (
    <section aria-label={title} className="mt-6 print:mt-0 print:break-before-page">
      <h2 className="no-print mb-2">{title}</h2>
      {children}
    </section>
  );
}

function Grid({ columns, children }: { columns: string; children: ReactNode }) {
  return <div className={`grid max-w-[19cm] ${columns}`}>{children}</div>;
}

/** A thing to cut out. */
function Cut({ tall, children }: { tall: string; children: ReactNode }) {
  return (
    <p
      className={`-mt-px -ml-px flex ${tall} break-inside-avoid items-center justify-center border border-dashed border-ink bg-sheet px-2 text-center font-child`}
    >
      {children}
    </p>
  );
}
