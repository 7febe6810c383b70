import type { SessionView } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { partTitles } from "#core/plans";
import { nearDay } from "#web/parts/dates.ts";
import { Panel } from "#web/parts/page.tsx";

const words: Record<string, string> = {
  right: "right",
  slow: "slow",
  ownWay: "own way",
  wrong: "wrong",
  none: "no answer",
};

/** What came back about this session. */
export function Reports({ session, today }: { session: SessionView; today: string }) {
  const nameOf = new Map(session.members.map((member) => [member.id, member.name]));
  return (
    <Panel title="Handed back">
      {session.reports.length === 0 && (
        <p className="text-soft">Nothing yet. Share the card, or say yourself what happened.</p>
      )}
      <ul className="flex flex-col gap-3">
        {session.reports.map((report) => (
          <li key={report.id}>
            <p className="font-semibold">
              {report.by}, {nearDay(report.at.slice(0, 10), today)}
            </p>
            <p>
              {report.came.length} of {session.members.length} came
              {report.reached ? `, reached: ${partTitles[report.reached].toLowerCase()}` : ", it did not begin"}
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
