import { useParams } from "react-router";
import { getSitting, type SittingView } from "#contract";
import { asSheet, choicesOnSheet, kinds } from "#core/checks";
import { shortDay } from "#core/saying";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { useKept } from "#web/device/kept.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";

type Check = SittingView["checks"][number];

/** The sheets of a check on paper: one for the adult who reads out, one for each child. */
export function Screen() {
  const { sittingId = "" } = useParams();
  const { data, error } = useKept(getSitting, { params: { id: sittingId } });
  const checks = data?.checks.filter((check) => check.kind === "paper") ?? [];
  return (
    <Page
      place="Sheets"
      title="Sheets to print"
      about="One page for you, one for each child. A and B have the choices in another order, so that neighbours cannot copy."
      actions={
        <>
          <Button shape="main" onClick={() => window.print()}>
            Print
          </Button>
          <ButtonLink to={`/check/${sittingId}`}>Enter the answers</ButtonLink>
        </>
      }
    >
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {data && checks.length === 0 && <p className="text-soft">This check has no part on paper.</p>}
      {data && checks[0] && (
        <div className="flex flex-col gap-6 print:block">
          <AdultSheet sitting={data} checks={checks} />
          {checks.map((check) => (
            <ChildSheet
              key={check.id}
              check={check}
              name={data.children.find((child) => child.id === check.childId)?.name ?? ""}
            />
          ))}
        </div>
      )}
    </Page>
  );
}

const sheet =
  "mx-auto break-after-page last:break-after-auto w-full max-w-[186mm] rounded border border-line bg-white p-8 text-black print:border-0 print:p-0";

function AdultSheet({ sitting, checks }: { sitting: SittingView; checks: readonly Check[] }) {
  const [first] = checks as [Check];
  const versions = (["A", "B"] as const).filter((version) =>
    checks.some((check) => asSheet(check.setup).version === version),
  );
  const initials = checks.map((check) => sitting.children.find((child) => child.id === check.childId)?.name ?? "");
  return (
    <section className={sheet} aria-label="Sheet for the adult">
      <h2 className="mb-1 text-xl">For the adult who reads out</h2>
      <p className="mb-2">
        {sitting.name}, {shortDay(dayOfInstant(sitting.startedAt), todayHere())}: {initials.join(", ")}
      </p>
      <p className="mb-3">
        Look at the worked example together. Then say each number and its word, say it in a sentence, and say the word
        again. Give no help with sounds. A child who does not know leaves the line empty.
      </p>
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="border-b border-black">
            <th scope="col" className="w-12 py-1">
              No.
            </th>
            <th scope="col">Say</th>
            {versions.map((version) => (
              <th key={version} scope="col" className="w-28">
                Right on {version}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {first.items.map((item, at) => (
            <tr key={item} className="border-b border-neutral-300">
              <td className="py-1">{at + 1}</td>
              <td className="font-child text-lg">{kinds.paper.show(item)}</td>
              {versions.map((version) => (
                <td key={version}>
                  {choicesOnSheet(item, { ...asSheet(first.setup), version }).findIndex(
                    (choice) => choice.from === undefined,
                  ) + 1}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const example = ["mop", "map", "mat", "nap"];

function ChildSheet({ check, name }: { check: Check; name: string }) {
  const { items } = check;
  const setup = asSheet(check.setup);
  return (
    <section className={sheet} aria-label={`Sheet of ${name}`}>
      <header className="mb-3 flex items-baseline justify-between border-b border-black pb-1">
        <h2 className="font-child text-2xl">{name}</h2>
        <span className="text-lg">{setup.version}</span>
      </header>
      <div className="mb-4 flex items-center gap-4 rounded border border-dashed border-black px-3 py-1.5">
        <span>Like this: “map”</span>
        <Line words={example} ringed={1} />
      </div>
      <ol className="flex flex-col">
        {items.map((item, at) => (
          <li key={item} className="flex items-center gap-4 border-b border-neutral-300 py-[1.6mm]">
            <span className="w-8 text-right">{at + 1}</span>
            <Line words={choicesOnSheet(item, setup).map((choice) => choice.text)} />
          </li>
        ))}
      </ol>
    </section>
  );
}

function Line({ words, ringed = -1 }: { words: readonly string[]; ringed?: number }) {
  return (
    <span className="font-child grid flex-1 grid-cols-4 text-center text-2xl">
      {words.map((word, at) => (
        <span key={word}>
          <span className={at === ringed ? "rounded-full border-2 border-black px-3 py-0.5" : "px-3"}>{word}</span>
        </span>
      ))}
    </span>
  );
}
