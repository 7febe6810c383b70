import { useEffect, useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { addressOf, getSitting, type SittingView } from "#contract";
import { kinds, resultInWords, summarise } from "#core/checks";
import { notesIn, standing, stopIn } from "#core/ledger";
import { shortDay } from "#core/saying";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { useKept } from "#web/device/kept.ts";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { outbox, useOutbox } from "#web/device/outbox.ts";
import { forget } from "#web/device/pages.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";
import { CheckChanged } from "./changed.tsx";
import { useSittingLog } from "./log.ts";
import { CheckPanel } from "./result-check.tsx";
import { resultRows } from "./result-csv.ts";
import type { CheckTold } from "./told.ts";

/** What the checks of a sitting say, child by child; also from what this device has, when there is no line. */
export function Screen() {
  const { sittingId = "" } = useParams();
  const { data, error } = useKept(getSitting, { params: { id: sittingId } });
  const { ground, error: noWords } = useLexicon();
  const trouble = error ?? noWords;
  if (trouble)
    return (
      <Page place="Result" title="Result">
        <Trouble error={trouble} />
      </Page>
    );
  if (!data || !ground || data.id !== sittingId)
    return (
      <Page place="Result" title="Result">
        <Waiting />
      </Page>
    );
  return <Result key={data.id} sitting={data} ground={ground} />;
}

function Result({ sitting, ground }: { sitting: SittingView; ground: SchoolWords }) {
  const [search, setSearch] = useSearchParams();
  const log = useSittingLog(sitting);
  const [all, setAll] = useState(false);
  const slowAfterMs = sitting.settings.slowAfter * 1000;
  const told = useMemo(
    () =>
      sitting.checks.map((check): CheckTold => {
        const entries = log.of(check.id);
        const before = new Map(check.before.map(({ item, outcome }) => [item, outcome]));
        const answers = standing(entries, { slowAfterMs });
        return {
          check,
          result: summarise({ ...ground, kind: check.kind, answers, before, setup: check.setup }),
          answers,
          notes: notesIn(entries),
          why: stopIn(entries, check.id)?.why,
        };
      }),
    [sitting, log, ground, slowAfterMs],
  );
  useForget(sitting);
  const asked = search.get("child");
  const child = sitting.children.find((one) => one.id === asked) ?? sitting.children[0];
  const mine = told.filter(({ check, result }) => check.childId === child?.id && (result.asked > 0 || check.endedAt));
  if (!child)
    return (
      <Page place="Result" title="Result">
        Nothing of this check is left.
      </Page>
    );
  const open = sitting.checks.find(
    (check) => check.endedAt === null && told.find((one) => one.check === check)?.why === undefined,
  );
  const save = () =>
    downloadCsv(
      "check.csv",
      resultRows(
        sitting.children.map((one) => ({
          name: one.name,
          checks: told.filter(({ check }) => check.childId === one.id),
        })),
      ),
    );
  return (
    <Page
      place="Result"
      title={`What this check says: ${all ? "everyone" : child.name}`}
      about={`${sitting.name}, ${shortDay(dayOfInstant(sitting.startedAt), todayHere())}${child.className ? `, ${child.className}` : ""}`}
      actions={
        <>
          {open && <ButtonLink to={`/check/${sitting.id}?check=${open.id}`}>Go on with the check</ButtonLink>}
          <Button onClick={() => window.print()}>Print</Button>
          <Button onClick={save}>Save as CSV</Button>
          <ButtonLink to={`/gaps?class=${child.classId}&child=${child.id}`} shape="main">
            See it on the map
          </ButtonLink>
          <ButtonLink to="/check">Check others</ButtonLink>
        </>
      }
    >
      {sitting.children.length > 1 && (
        <Children
          sitting={sitting}
          told={told}
          current={all ? "" : child.id}
          onChoose={(id) => {
            setAll(false);
            setSearch({ child: id }, { replace: true });
          }}
          onAll={() => setAll(true)}
        />
      )}
      {all ? (
        <Everyone sitting={sitting} told={told} />
      ) : (
        <>
          <h2 className="only-print mb-2">
            {child.name}, {sitting.name}, {shortDay(dayOfInstant(sitting.startedAt), todayHere())}
          </h2>
          {mine.length === 0 && <p className="text-soft">Nothing was asked yet.</p>}
          <div className="flex flex-col gap-4">
            {mine.map((one) => (
              <CheckPanel key={one.check.id} told={one} classId={child.classId} ground={ground} />
            ))}
            {mine.length > 0 && <CheckChanged childId={child.id} sittingId={sitting.id} />}
          </div>
        </>
      )}
      <p className="mt-4 max-w-prose text-sm text-soft">
        This is a teaching observation, not a diagnosis. Where gaps stay in spite of good teaching, or hearing, sight
        or speech could be the cause, talk to the family and to the specialist under your local procedure.
      </p>
    </Page>
  );
}

/** What an ended sitting kept on this device goes once the server has all of it. */
function useForget(sitting: SittingView): void {
  const { waiting } = useOutbox();
  const done = sitting.endedAt !== null && waiting.length === 0;
  useEffect(() => {
    if (!done) return;
    void outbox.forget(sitting.id);
    void forget(addressOf(getSitting, { id: sitting.id }));
  }, [done, sitting.id]);
}

function Children({
  sitting,
  told,
  current,
  onChoose,
  onAll,
}: {
  sitting: SittingView;
  told: readonly CheckTold[];
  current: string;
  onChoose: (id: string) => void;
  onAll: () => void;
}) {
  const look = (on: boolean) =>
    `min-h-9 rounded-full border px-3 ${on ? "border-leaf bg-leaf-pale font-semibold" : "border-line bg-sheet"}`;
  return (
    <nav aria-label="Children" className="no-print mb-4 flex flex-wrap gap-1.5">
      <button
        type="button"
        aria-current={current === "" ? "true" : undefined}
        onClick={onAll}
        className={look(current === "")}
      >
        All together
      </button>
      {sitting.children.map((child) => {
        const mine = told.filter(({ check }) => check.childId === child.id);
        const missed = mine.reduce((sum, { result }) => sum + result.missed.length, 0);
        return (
          <button
            key={child.id}
            type="button"
            aria-current={current === child.id ? "true" : undefined}
            onClick={() => onChoose(child.id)}
            className={look(current === child.id)}
          >
            {child.name} <span className="text-sm font-normal text-soft">{missed > 0 ? `${missed} missed` : ""}</span>
          </button>
        );
      })}
    </nav>
  );
}

/** All children of a sitting in one table: the main sentences of each. */
function Everyone({ sitting, told }: { sitting: SittingView; told: readonly CheckTold[] }) {
  const nameOf = (id: string) => sitting.children.find((child) => child.id === id)?.name ?? "";
  return (
    <Table
      room="sheet"
      label="All children of this check"
      rows={told.filter(({ result }) => result.asked > 0)}
      rowKey={({ check }) => check.id}
      columns={[
        {
          title: "Child",
          names: true,
          className: "whitespace-nowrap",
          sortBy: ({ check }) => nameOf(check.childId),
          show: ({ check }) => <span className="font-semibold">{nameOf(check.childId)}</span>,
        },
        {
          title: "Part",
          className: "whitespace-nowrap",
          sortBy: ({ check }) => kinds[check.kind].name,
          show: ({ check }) => kinds[check.kind].name,
        },
        {
          title: "At once",
          figures: true,
          sortBy: ({ result }) => result.known.length,
          show: ({ result }) => result.known.length,
        },
        {
          title: "With effort",
          figures: true,
          sortBy: ({ result }) => result.effort.length,
          show: ({ result }) => result.effort.length,
        },
        {
          title: "Missed",
          figures: true,
          sortBy: ({ result }) => result.missed.length,
          show: ({ result }) => result.missed.length,
        },
        { title: "What stands out", show: ({ result }) => resultInWords(result).slice(1, 3).join(" ") || "–" },
      ]}
    />
  );
}
