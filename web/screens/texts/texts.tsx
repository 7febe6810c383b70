import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { listReadings, type ReadingView } from "#contract";
import { byFit, fitLimits, scoreReading, type TextFit, wholeAccuracy } from "#core/reading";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { useForOptions } from "#web/device/readers.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { type Column, Table } from "#web/parts/table.tsx";
import { ClassSpread } from "./class-spread.tsx";
import { LibraryFiles } from "./library-files.tsx";
import { type Shelved, useShelf } from "./shelf.ts";

/** The shelf of texts, those that fit these readers first, with the reason. */
export function Screen() {
  const options = useForOptions();
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const [wanted, setWanted] = useState("");
  const { texts, shelf, laid, orderName, error } = useShelf(forKey);
  const [kind, id = ""] = forKey.split(":");
  const readings = useAsk(listReadings, kind === "child" ? { params: { id } } : null);
  const asked = wanted.trim().toLowerCase();
  // For these readers the order is known with the last of them; for everyone it is that of the library.
  const rows: readonly Row[] =
    forKey === "all"
      ? (texts ?? []).map((text) => ({ id: text.id, text, ...laid.get(text.id) }))
      : shelf
        ? byFit(shelf)
        : [];
  const shown = rows.filter(({ text }) => asked === "" || `${text.title} ${text.body}`.toLowerCase().includes(asked));
  const waits = !error && (forKey === "all" ? !texts : !shelf);
  const forPart = forKey === "all" ? "" : `?for=${forKey}`;
  return (
    <Page
      place="Texts"
      title="Texts"
      about={`Those that fit these readers first. Steps are those of ${orderName || "the teaching order"}.`}
      actions={
        <>
          <ForChoice
            options={options}
            value={forKey}
            onChange={(key) => setSearch({ for: key }, { replace: true })}
          />
          <LibraryFiles />
          <ButtonLink to={`/texts/new${forPart}`} shape="main">
            Add a text
          </ButtonLink>
        </>
      }
    >
      {error && <Trouble error={error} />}
      {!(error && rows.length === 0) && (
        <div className="flex flex-col gap-4">
          {(kind === "class" || kind === "group") && <ClassSpread forKey={forKey} />}
          <div className="w-72">
            <TextField
              label="Search the shelf"
              bare
              placeholder="A title, or a word of a text"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
          </div>
          {waits ? (
            <div className="rounded-lg border border-line bg-sheet p-3">
              <p className="mb-2 text-sm text-soft tabular-nums">
                {texts ? `${laid.size} of ${texts.length} texts laid against these readers` : "The texts are coming"}
              </p>
              <Waiting rows={texts?.length ?? 14} />
            </div>
          ) : shown.length === 0 ? (
            <p className="text-soft">No text has “{wanted}”.</p>
          ) : (
            <Table
              label="Texts"
              room="sheet"
              rows={shown}
              rowKey={(one) => one.id}
              columns={columnsFor({
                forPart,
                named: forKey !== "all",
                readings: kind === "child" ? (readings.data ?? []) : undefined,
              })}
            />
          )}
        </div>
      )}
    </Page>
  );
}

/** A text on the shelf; how it fits comes when it is laid. */
type Row = Pick<Shelved, "id" | "text"> & Partial<Pick<Shelved, "step" | "fit">>;

/** Stands where a figure will stand. */
function Bar({ wide = false }: { wide?: boolean }) {
  return (
    <span
      aria-hidden
      className={`inline-block h-4 rounded bg-line/50 align-middle ${wide ? "w-48" : "w-6"} animate-pulse motion-reduce:animate-none`}
    />
  );
}

interface ColumnsWanted {
  readonly forPart: string;
  /** Whether to say in a word how it fits. */
  readonly named: boolean;
  /** The child's readings, the newest first; undefined where no one child is asked about. */
  readonly readings: readonly ReadingView[] | undefined;
}

function columnsFor({ forPart, named, readings }: ColumnsWanted): readonly Column<Row>[] {
  const wasRead = ({ id }: Row) => {
    const read = readings?.find((reading) => reading.textId === id && reading.how === "alone");
    return read && `${shortDay(read.day, todayHere())}, ${wholeAccuracy(scoreReading(read).accuracy) ?? 0}%`;
  };
  return [
    {
      title: "Text",
      names: true,
      sortBy: ({ text }) => text.title,
      className: "whitespace-nowrap",
      show: ({ text }) => (
        <>
          <Link
            to={`/texts/${text.id}${forPart}`}
            className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {text.title}
          </Link>
          {text.own && <span className="ml-2 text-sm text-soft">ours</span>}
        </>
      ),
    },
    {
      title: "Step",
      figures: true,
      sortBy: ({ step }) => step ?? null,
      show: ({ step }) => (step === undefined ? <Bar /> : (step ?? "–")),
    },
    {
      title: "Words",
      figures: true,
      sortBy: ({ fit }) => fit?.words ?? null,
      show: ({ fit }) => fit?.words ?? <Bar />,
    },
    {
      title: "Reads",
      figures: true,
      sortBy: ({ fit }) => fit?.share ?? null,
      show: ({ fit }) =>
        fit ? (
          <span className={fit.share >= fitLimits.alone ? "font-semibold" : ""}>{Math.floor(fit.share * 100)}%</span>
        ) : (
          <Bar />
        ),
    },
    ...(readings ? [{ title: "Was read", className: "whitespace-nowrap text-sm", show: wasRead }] : []),
    {
      title: "Why",
      show: ({ fit }) =>
        fit ? (
          <>
            <span className="font-semibold">{named ? nameOf(fit) : ""}</span> {fit.why}
          </>
        ) : (
          <Bar wide />
        ),
    },
  ];
}

function nameOf({ share }: TextFit): string {
  return share >= fitLimits.alone ? "To read alone." : share >= fitLimits.helped ? "With help." : "Not yet.";
}
