import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { listReadings } from "#contract";
import { byFit, fitLimits, scoreReading, type TextFit } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { shortDay } from "#web/parts/dates.ts";
import { TextField } from "#web/parts/field.tsx";
import { ForChoice } from "#web/parts/for-choice.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
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
              <table className="w-full border-collapse text-left">
                <thead>
                  <tr className="border-b border-line text-sm text-soft">
                    <th scope="col" className="px-3 py-2 font-semibold">
                      Text
                    </th>
                    <th scope="col" className="px-3 py-2 text-right font-semibold">
                      Step
                    </th>
                    <th scope="col" className="px-3 py-2 text-right font-semibold">
                      Words
                    </th>
                    <th scope="col" className="px-3 py-2 text-right font-semibold">
                      Reads
                    </th>
                    {kind === "child" && (
                      <th scope="col" className="px-3 py-2 font-semibold">
                        Was read
                      </th>
                    )}
                    <th scope="col" className="px-3 py-2 font-semibold">
                      Why
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {shown.map((one) => (
                    <Row
                      key={one.id}
                      one={one}
                      forPart={forPart}
                      named={reader?.key !== "all"}
                      read={kind === "child" ? readings.data?.find((reading) => reading.textId === one.id) : null}
                    />
                  ))}
                </tbody>
              </table>
            </section>
          )}
        </div>
      )}
    </Page>
  );
}

interface RowWanted {
  readonly one: Shelved;
  readonly forPart: string;
  /** Whether to say in a word how it fits. */
  readonly named: boolean;
  /** The newest reading of it; null where no one is asked about. */
  readonly read: (Parameters<typeof scoreReading>[0] & { readonly day: string }) | undefined | null;
}

function Row({ one, forPart, named, read }: RowWanted) {
  const { text, step, fit } = one;
  return (
    <tr className="border-b border-line/60 align-baseline">
      <th scope="row" className="whitespace-nowrap px-3 py-1.5 font-normal">
        <Link
          to={`/texts/${text.id}${forPart}`}
          className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          {text.title}
        </Link>
        {text.own && <span className="ml-2 text-sm text-soft">ours</span>}
      </th>
      <td className="px-3 py-1.5 text-right">{step ?? "–"}</td>
      <td className="px-3 py-1.5 text-right">{fit.words}</td>
      <td className={`px-3 py-1.5 text-right ${fit.share >= fitLimits.alone ? "font-semibold" : ""}`}>
        {Math.floor(fit.share * 100)}%
      </td>
      {read !== null && (
        <td className="whitespace-nowrap px-3 py-1.5 text-sm">
          {read && `${shortDay(read.day)}, ${Math.round(scoreReading(read).accuracy ?? 0)}%`}
        </td>
      )}
      <td className="px-3 py-1.5">
        <span className="font-semibold">{named ? nameOf(fit) : ""}</span> {fit.why}
      </td>
    </tr>
  );
}

function nameOf({ share }: TextFit): string {
  return share >= fitLimits.alone ? "To read alone." : share >= fitLimits.helped ? "With help." : "Not yet.";
}
