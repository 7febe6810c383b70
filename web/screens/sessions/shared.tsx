import { useState } from "react";
import { useParams } from "react-router";
import { getShared, reportShared } from "#contract";
import { dayAt } from "#core/ledger";
import { nearDay, shortDay } from "#core/saying";
import { call, useAskOnly, wordsOfError } from "#web/device/api.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Trouble, usePlaceTitle, Waiting } from "#web/parts/page.tsx";
import { SessionCard } from "./card.tsx";
import { ReportFields } from "./report-fields.tsx";

/** The card as a colleague with the link sees it, on a phone or on paper, and the form that says what happened. */
export function Screen() {
  usePlaceTitle("Session card");
  const { token = "" } = useParams();
  const { data, error, mutate } = useAskOnly(getShared, { params: { token } });
  const [telling, setTelling] = useState(false);
  const [sent, setSent] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <main className="mx-auto max-w-[46rem] px-4 py-4">
      <h1 className="sr-only">Session card</h1>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting rows={9} />}
      {data && (
        <>
          <p className="no-print mb-4">
            <ButtonLink to={`/shared/${token}/teach`} shape="main" className="min-h-11 w-full justify-center">
              Teach it from here
            </ButtonLink>
          </p>
          <SessionCard
            point={data.point}
            groupName={data.groupName}
            heldOn={data.heldOn}
            names={data.members.map((member) => member.name)}
            nameOf={(id) => data.members.find((member) => member.id === id)?.name ?? ""}
            plan={data.plan}
          />
          <section className="no-print mt-4" aria-label="What happened">
            {data.reports.map((report) => (
              <p key={report.at + report.by} className="text-soft">
                {report.by} said what happened {nearDay(dayAt(data.timeZone, report.at), data.today)}.
              </p>
            ))}
            {sent ? (
              <p role="status" className="rounded-md bg-leaf-pale px-3 py-2">
                Thank you. The teacher sees it now.
              </p>
            ) : telling ? (
              <ReportFields
                members={data.members}
                plan={data.plan}
                by=""
                trouble={trouble}
                onSend={async (report) => {
                  try {
                    await call(reportShared, { params: { token }, body: report });
                    setSent(true);
                    await mutate();
                    return true;
                  } catch (problem) {
                    setTrouble(wordsOfError(problem));
                    return false;
                  }
                }}
              />
            ) : (
              <Button className="min-h-11 w-full" onClick={() => setTelling(true)}>
                Say what happened
              </Button>
            )}
            <p className="mt-4 text-sm text-soft">
              This link works until {shortDay(data.endsOn, data.today)}. Please keep it to yourself.
            </p>
          </section>
        </>
      )}
    </main>
  );
}
