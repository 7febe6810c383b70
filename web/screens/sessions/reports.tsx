import { removeReport, reportSession, type SessionView } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { kindsOfPart } from "#core/plans";
import { nearDay } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";

const words: Record<string, string> = {
  right: "right",
  slow: "slow",
  ownWay: "own way",
  wrong: "wrong",
  none: "no answer",
};

/** What was said of this session. */
export function Reports({ session, today }: { session: SessionView; today: string }) {
  const write = async (run: () => Promise<unknown>) => {
    try {
      await run();
      await refreshAll();
      return true;
    } catch (error) {
      toast.error(wordsOfError(error));
      return false;
    }
  };
  const takeOut = async (report: SessionView["reports"][number]) => {
    const params = { id: session.id };
    if (!(await write(() => call(removeReport, { params: { ...params, reportId: report.id } })))) return;
    // The log forgets nothing: what comes back is entered anew.
    const again = { ...report, id: newId(), marks: report.marks.map((mark) => ({ ...mark, id: newId() })) };
    toastWithUndo(`What ${report.by} said is taken out, with its marks.`, () =>
      write(() => call(reportSession, { params, body: again })),
    );
  };
  const nameOf = new Map(session.members.map((member) => [member.id, member.name]));
  return (
    <Panel title="What happened">
      {session.reports.length === 0 && (
        <p className="text-soft">Nothing yet. Share the card, or say yourself what happened.</p>
      )}
      <ul className="flex flex-col gap-3">
        {session.reports.map((report) => (
          <li key={report.id}>
            <div className="flex items-center justify-between gap-2">
              <p className="font-semibold">
                {report.by}, {nearDay(dayOfInstant(report.at), today)}
              </p>
              <Button
                shape="quiet"
                className="-my-1"
                aria-label={`Take out what ${report.by} said`}
                onClick={() => takeOut(report)}
              >
                Take out
              </Button>
            </div>
            <p>
              {report.came.length} of {session.members.length} came
              {report.reached
                ? `, reached: ${kindsOfPart[report.reached].title.toLowerCase()}`
                : ", it did not begin"}
            </p>
            <ul className="text-sm">
              {report.marks.map((mark) => (
                <li key={mark.id}>
                  {nameOf.get(mark.childId)}:{" "}
                  <span className="font-child">{showGrapheme(splitGpc(mark.gpc).grapheme)}</span>{" "}
                  {words[mark.outcome]}
                </li>
              ))}
            </ul>
            {report.note && <p className="text-soft">{report.note}</p>}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
