import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { listReadings, type ReadingView } from "#contract";
import { byFit, fitLimits, scoreReading, type TextFit } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { shortDay } from "#web/parts/dates.ts";
import { TextField } from "#web/parts/field.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { type Column, Table } from "#web/parts/table.tsx";
import { ClassSpread } from "./class-spread.tsx";
import { LibraryFiles } from "./library-files.tsx";
import { type Shelved, useShelf } from "./shelf.ts";

/** The shelf of texts, those that fit these readers first, with the reason. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const forKey = search.get("for") ?? "all";
  const [wanted, setWanted] = useState("");
  const { shelf, reader, orderName, error } = useShelf(forKey);
  const [kind, id = ""] = forKey.split(":");
  const readings = useAsk(listReadings, kind === "child" ? { params: { id } } : null);
  const asked = wanted.trim().toLowerCase();
  const shown = (reader && reader.key !== "all" && shelf ? byFit(shelf) : (shelf ?? [])).filter(
    ({ text }) => asked === "" || `${text.title} ${text.body}`.toLowerCase().includes(asked),
  );
  const forPart = forKey === "all" ? "" : `?for=${forKey}`;
  return (
    <Page
      place="Texts"
      title="Texts"
      about={`Those that fit these readers first. Steps are those of ${orderName || "the teaching order"}.`}
      actions={
        <>
          <ForChoice value={forKey} onChange={(key) => setSearch({ for: key }, { replace: true })} />
          <LibraryFiles />
          <ButtonLink to={`/texts/new${forPart}`} shape="main">
            Add a text
          </ButtonLink>
        </>
      }
    >
      {error && <Trouble error={error} />}
      {!shelf && !error && <Waiting rows={10} />}
      {shelf && (
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
          {shown.length === 0 ? (
            <p className="text-soft">No text has “{wanted}”.</p>
          ) : (
            <section
              tabIndex={0}
              aria-label="Texts"
              className="overflow-x-auto rounded-lg border border-line bg-sheet"
            >
              <Table
                room="sheet"
                rows={shown}
                rowKey={(one) => one.id}
                columns={columnsFor({
                  forPart,
                  named: reader?.key !== "all",
                  readings: kind === "child" ? (readings.data ?? []) : undefined,
                })}
              />
            </section>
          )}
        </div>
      )}
    </Page>
  );
}

interface ColumnsWanted {
  readonly forPart: string;
  /** Whether to say in a word how it fits. */
  readonly named: boolean;
  /** The child's readings, the newest first; undefined where no one child is asked about. */
  readonly readings: readonly ReadingView[] | undefined;
}

function columnsFor({ forPart, named, readings }: ColumnsWanted): readonly Column<Shelved>[] {
  const wasRead = ({ id }: Shelved) => {
    const read = readings?.find((reading) => reading.textId === id && reading.how === "alone");
    return read && `${shortDay(read.day)}, ${Math.round(scoreReading(read).accuracy ?? 0)}%`;
  };
  return [
    {
      title: "Text",
      names: true,
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
    { title: "Step", figures: true, show: ({ step }) => step ?? "–" },
    { title: "Words", figures: true, show: ({ fit }) => fit.words },
    {
      title: "Reads",
      figures: true,
      show: ({ fit }) => (
        <span className={fit.share >= fitLimits.alone ? "font-semibold" : ""}>{Math.floor(fit.share * 100)}%</span>
      ),
    },
    ...(readings ? [{ title: "Was read", className: "whitespace-nowrap text-sm", show: wasRead }] : []),
    {
      title: "Why",
      show: ({ fit }) => (
        <>
          <span className="font-semibold">{named ? nameOf(fit) : ""}</span> {fit.why}
        </>
      ),
    },
  ];
}

function nameOf({ share }: TextFit): string {
  return share >= fitLimits.alone ? "To read alone." : share >= fitLimits.helped ? "With help." : "Not yet.";
}
